//! The sentences of errors and notices: what is wrong, where, and which option or command mends it.

use uvlet_audit::ask::gate::remark::GateRemark;
use uvlet_read::{DescriptionError, ReadError};
use uvlet_record::{Lack, Notice, OtherName, Remark, SavedError, Setting};
use uvlet_view::words::{errors, quote};

/// Notices with their sentences, for outputs.
pub fn notices(notices: &[Notice]) -> Vec<uvlet_view::Notice> {
    let worded = |notice: &Notice| uvlet_view::Notice {
        code: notice.remark.code(),
        message: remark(&notice.remark),
        place: notice.place.clone(),
    };
    notices.iter().map(worded).collect()
}

/// What should be known of budgets, for outputs.
pub fn gate_notices<'r>(
    remarks: impl IntoIterator<Item = &'r GateRemark>,
) -> Vec<uvlet_view::Notice> {
    let worded = |remark: &GateRemark| uvlet_view::Notice {
        code: remark.code(),
        message: gate_remark(remark),
        place: None,
    };
    remarks.into_iter().map(worded).collect()
}

fn remark(remark: &Remark) -> String {
    match remark {
        Remark::BuildErrors { count: 1 } => {
            "the bundler reported an error; the build may be incomplete".to_owned()
        }
        Remark::BuildErrors { count } => {
            format!("the bundler reported {count} errors; the build may be incomplete")
        }
        Remark::BuildFound { folder } => {
            format!("{folder} is measured, the one output folder of this project")
        }
        Remark::WholeRead { folder } => {
            format!("{folder} is read, the whole output that this is a part of")
        }
        Remark::CopyDiffers { file } => format!("does not decode to {file}: it is not used"),
        Remark::Elsewhere { count: 1, url } => {
            format!("{url} is loaded from another host; not counted")
        }
        Remark::Elsewhere { count, url } => format!(
            "{url} and {} more are loaded from other hosts; not counted; the survey lists them",
            count - 1
        ),
        Remark::EntriesInferred { names } => format!(
            "no page names what it starts from; scripts that nothing else loads are taken as entries: {}",
            names.join(", ")
        ),
        Remark::FileMissing { asked } => format!("requests {asked}, which is not in the folder"),
        Remark::LengthsBeforeMinification => {
            "has no source map, and only lengths from before minification are known: its modules may be off by tens of percent; a source map tells exactly, --root DIR with the sources better".to_owned()
        }
        Remark::Link => "a link, which is not followed: its bytes are not counted".to_owned(),
        Remark::MapDamaged { file, reason, bytes } => {
            format!("{reason}: the {bytes} B of {file} have no owner")
        }
        Remark::MapMissing { map, is_described: true, .. } => format!(
            "names the source map {map}, which is missing: the bundler's description is used instead"
        ),
        Remark::MapMissing { map, bytes, .. } => {
            format!("names the source map {map}, which is missing: its {bytes} B have no owner")
        }
        Remark::MergedBySize => {
            "modules merged into one function are told apart by their sizes alone, which may be far off; --root DIR, with the sources, or `source: true` in the stats tells better".to_owned()
        }
        Remark::NotUtf8 { at } => format!("is not UTF-8 at byte {at}: what it loads is unknown"),
        Remark::PartOfBuild { whole } => format!(
            "is part of a build whose pages are in {whole}; `uvlet survey {}` measures all of it",
            quote::shell(whole)
        ),
        Remark::ScriptUnparsed { reason } => format!("{reason}: what it loads is unknown"),
        Remark::SettingUnused { setting } => {
            let what = match setting {
                Setting::Description => "a description",
                Setting::Maps => "a folder of source maps",
                Setting::Root => "a project's folder",
                Setting::Base => "a base URL",
            };
            format!("{what} has no effect on a saved record")
        }
        Remark::TargetSetAside { target, file_count, bytes } => {
            let name = target.name();
            let files =
                if *file_count == 1 { "1 file".to_owned() } else { format!("{file_count} files") };
            format!(
                "{files} of {name} output ({bytes} B emitted) are excluded from totals; --target {name} reads them"
            )
        }
        Remark::Unreadable { reason } => format!("cannot be read ({reason}): not counted"),
        Remark::StatsDamaged { .. }
        | Remark::StatsElsewhere
        | Remark::StatsMissing { .. }
        | Remark::StatsOff { .. }
        | Remark::StatsShort { .. }
        | Remark::StatsWithoutScripts => of_description(remark),
    }
}

fn of_description(remark: &Remark) -> String {
    match remark {
        Remark::StatsDamaged { reason } => format!("{reason}: write it again"),
        Remark::StatsElsewhere => "describes another build, and is not used".to_owned(),
        Remark::StatsMissing { files, count } => {
            format!("names files that the folder does not hold: {}", some(files, *count))
        }
        Remark::StatsOff { bytes, files, count } => format!(
            "is off by {bytes} B from the sizes on disk, which count: {}",
            some(files, *count)
        ),
        Remark::StatsShort { lacks } => {
            let lacks: Vec<String> = lacks.iter().map(|one| lack(*one)).collect();
            format!("leaves out {}", lacks.join("; "))
        }
        _ => description(&DescriptionError::Empty),
    }
}

fn gate_remark(remark: &GateRemark) -> String {
    match remark {
        GateRemark::AtOnce { budget, entry, bytes, measure } => format!(
            "budget `{budget}` counts what {entry} needs to start; its code loads {bytes} B ({measure}) more at once, which at-once({entry}) counts too"
        ),
        GateRemark::WaiverUnused { about, missing: Some(missing) } => {
            format!("the waiver of {about} applies to nothing: {}", errors::missing(missing))
        }
        GateRemark::WaiverUnused { about, missing: None } => {
            format!("the waiver of {about} no longer applies; remove it")
        }
        GateRemark::ChunkRenamed { budget, by, name, lasting } => {
            let what = match by {
                OtherName::Given => "the bundler's name",
                OtherName::Stem => "the file's name",
                OtherName::Id => "the bundler's number",
            };
            format!(
                "budget `{budget}`: chunk({name}) is {what}; the name that lasts is chunk({lasting})"
            )
        }
    }
}

/// What a description leaves out, with the bundler's option that adds it.
fn lack(lack: Lack) -> String {
    let (what, adds) = match lack {
        Lack::Assets => ("assets", "assets: true"),
        Lack::Entries => ("entries", "entrypoints: true"),
        Lack::Chunks => ("chunks and what opens them", "chunks: true, chunkOrigins: true"),
        Lack::Origins => ("what opens a chunk", "chunkOrigins: true"),
        Lack::Modules => ("modules", "modules: true"),
        Lack::ModuleNames => ("names of modules", "ids: true"),
        Lack::Reasons => ("why a module is there", "reasons: true"),
        Lack::MergedModules => {
            ("modules merged into others", "nestedModules: true, nestedModulesSpace: Infinity")
        }
        Lack::OrphanModules => ("modules without a chunk of their own", "orphanModules: true"),
        Lack::SomeModules => {
            ("some modules", "modulesSpace: Infinity, nestedModulesSpace: Infinity")
        }
    };
    format!("{what} (`{adds}`)")
}

fn some(paths: &[String], count: usize) -> String {
    match count.saturating_sub(paths.len()) {
        0 => paths.join(", "),
        more => format!("{} and {more} more", paths.join(", ")),
    }
}

/// Why no record could be made, and what to do.
pub fn read_error(error: &ReadError) -> String {
    const NAME: &str = "name the folder that the bundler wrote";
    match error {
        ReadError::Saved { path, source } => {
            let todo = match source {
                SavedError::Newer { .. } => "; update uvlet".to_owned(),
                SavedError::Older { .. } => "; write it again with `uvlet record`".to_owned(),
                _ => "; name an output folder, or what `uvlet record` wrote".to_owned(),
            };
            format!("{}: {source}{todo}", path.display())
        }
        ReadError::Description { path, source } => {
            format!("{}: {}", path.display(), description(source))
        }
        ReadError::DescriptionAlone(_) => {
            format!("{error}; {NAME}, and this file with --description")
        }
        ReadError::NoTarget { .. } => format!("{error}; leave --target out"),
        ReadError::Flaw { .. } => format!("{error}; please report this"),
        ReadError::Sources { .. } | ReadError::Installed(_) | ReadError::NothingCounted(_) => {
            format!("{error}; {NAME}")
        }
        ReadError::Io { .. } | ReadError::Encode { .. } => error.to_string(),
    }
}

fn description(error: &DescriptionError) -> String {
    let todo = match error {
        DescriptionError::Io(_) => return error.to_string(),
        DescriptionError::Damaged(_) => "write it again",
        DescriptionError::Foreign => "name the JSON file that it wrote",
        DescriptionError::Newer { .. } => "update uvlet, or print its plugin again",
        DescriptionError::Empty => {
            "write it again with `assets: true, chunks: true, entrypoints: true, modules: true`"
        }
        DescriptionError::Elsewhere(_) => "build again, or name the right file with --description",
    };
    format!("{error}: {todo}")
}
