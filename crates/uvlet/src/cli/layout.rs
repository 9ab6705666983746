//! How help is laid out: commands by the order of the work, examples before options, options under
//! headings with those that few need last.

use clap::Command;

/// Under which headings options stand that many commands have.
pub const OF_BUILD: &str = "Which build";
pub const OF_ANSWER: &str = "How the answer is shown";
pub const FOR_FEW: &str = "Rarely needed";

/// The commands, in the order of the work.
const GROUPS: [(&str, &[&str]); 7] = [
    ("Look", &["survey", "attribute", "report"]),
    ("Ask why", &["why"]),
    ("Find waste", &["waste", "coverage", "requests"]),
    ("Try a change", &["what-if"]),
    ("Compare", &["compare", "record"]),
    ("Hold in CI", &["propose", "gate", "post", "config"]),
    ("Set up", &["plugin", "demo", "completions", "manual", "help"]),
];

/// Columns that names of commands take.
const NAMES: usize = 14;
/// Columns of a line where no terminal says otherwise, and the most that are filled.
const COLUMNS: usize = 80;
const MOST: usize = 100;

/// The command line with its help laid out.
pub fn laid_out(program: Command) -> Command {
    let of_command =
        "{before-help}{about-with-newline}\n{usage-heading} {usage}{after-help}\n\n{all-args}";
    let program = program.mut_subcommands(|command| command.help_template(of_command));
    let columns = terminal_size::terminal_size().map_or(COLUMNS, |(width, _)| width.0.into());
    let listed = listed(&program, columns.min(MOST));
    let whole = format!(
        "{{about-with-newline}}\n{{usage-heading}} {{usage}}{{after-help}}\n\n{listed}\nOptions:\n{{options}}"
    );
    program.help_template(whole)
}

/// The commands under headings, each with the question that it answers.
fn listed(program: &Command, columns: usize) -> String {
    let about = |name: &str| match name {
        "help" => Some("Print this message, or the help of a command".to_owned()),
        name => {
            let command = program.get_subcommands().find(|command| command.get_name() == name)?;
            Some(command.get_about()?.to_string())
        }
    };
    let mut text = String::new();
    for (heading, names) in GROUPS {
        text.push_str(&format!("{heading}:\n"));
        for name in names {
            let Some(about) = about(name) else { continue };
            let mut line = format!("  {name:<NAMES$}");
            let mut used = line.len();
            for word in about.split_whitespace() {
                if used + word.len() > columns {
                    line = format!("{}\n{}", line.trim_end(), " ".repeat(NAMES + 2));
                    used = NAMES + 2;
                }
                line.push_str(word);
                line.push(' ');
                used += word.len() + 1;
            }
            text.push_str(&format!("{}\n", line.trim_end()));
        }
    }
    text
}

#[cfg(test)]
mod tests {
    use clap::CommandFactory;

    use super::GROUPS;

    #[test]
    fn every_command_stands_in_one_group() {
        let program = crate::cli::Cli::command();
        let mut listed: Vec<&str> = GROUPS.iter().flat_map(|(_, names)| *names).copied().collect();
        let mut known: Vec<&str> = program.get_subcommands().map(|one| one.get_name()).collect();
        known.push("help");
        listed.retain(|name| cfg!(feature = "post") || *name != "post");
        listed.sort_unstable();
        known.sort_unstable();
        assert_eq!(listed, known);
    }
}
