//! Whole screens, as people read them: each answer on 80 columns, and as Markdown.

use insta::Settings;
use rstest::{Context, rstest};

use crate::support::{demo, uvlet};

#[rstest]
#[case::survey(&["survey", "builds/esbuild-before"])]
#[case::survey_all(&["survey", "builds/vite-after", "--all"])]
#[case::survey_without_maps(&["survey", "builds/webpack-before-no-maps"])]
#[case::survey_of_development(&["survey", "builds/webpack-before-development"])]
#[case::attribute(&["attribute", "builds/esbuild-before", "--in", "startup(booking)"])]
#[case::attribute_by_export(&["attribute", "builds/esbuild-before", "--by", "export", "--top", "8"])]
#[case::attribute_in_two_measures(&["attribute", "builds/vite-before", "--measure", "br,gzip"])]
#[case::why(&["why", "builds/esbuild-before", "burgee-plot"])]
#[case::why_a_declaration(&["why", "builds/esbuild-before", "src/shared/fares.js#archivedFares"])]
#[case::waste(&["waste", "builds/esbuild-before"])]
#[case::waste_without_maps(&["waste", "builds/webpack-before-no-maps"])]
#[case::what_if(&["what-if", "builds/vite-before", "--defer", "burgee-plot", "--visits", "timetable,booking"])]
#[case::suggestions(&["what-if", "builds/vite-before", "--suggest"])]
#[case::compare(&["compare", "builds/esbuild-before", "builds/esbuild-after"])]
#[case::gate(&["gate", "builds/esbuild-before", "--today", "2026-06-01", "--show", "all"])]
#[case::coverage(&["coverage", "builds/esbuild-before", "load=recordings/load.json"])]
#[case::requests(&["requests", "builds/vite-after", "recordings/visit.har"])]
fn screens(#[context] context: Context, #[case] words: &[&str]) {
    let name = context.description.unwrap();
    let mut settings = Settings::clone_current();
    settings.set_snapshot_path("screens");
    settings.set_prepend_module_to_snapshot(false);
    settings.set_omit_expression(true);
    for form in ["table", "markdown"] {
        let line = [words, &["--format", form, "--width", "80", "--color", "never"]].concat();
        let said = uvlet(&demo(), &line);
        assert_eq!(said.err, "", "{line:?}");
        settings.bind(|| insta::assert_snapshot!(format!("{name}-{form}"), said.out));
    }
}
