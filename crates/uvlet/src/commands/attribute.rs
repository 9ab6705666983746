//! `uvlet attribute`.

use uvlet_audit::{
    attribute::{self, attribute},
    lens::Lens,
    nearest::remedy,
    selector::{self, Selector},
};
use uvlet_record::Record;
use uvlet_view::{csv, markdown, table};

use super::{as_json, measure, open, screen, taken};
use crate::{
    cli::{self, Attribute, By, Format},
    failure::{Failure, Status},
    output,
};

pub fn run(arguments: &Attribute) -> Result<Status, Failure> {
    // A selector that does not parse is told before a large build is read.
    let within = arguments.within.as_deref().unwrap_or("everything").parse::<Selector>()?;
    let (config, record) = open(&arguments.build)?;
    let measure = measure(arguments.measure.measure, config.as_ref());
    taken(measure, &record)?;
    let lens = Lens::new(&record);
    let selection = selector::select(&within, &lens)?;
    if let Some(name) = selection.unmatched.first() {
        return Err(Failure::In {
            selector: within.text().to_owned(),
            message: unmatched(name, &record),
        });
    }
    let by = match arguments.by {
        By::Package => attribute::By::Package,
        By::Module => attribute::By::Module,
        By::Folder => attribute::By::Folder,
        By::Chunk => attribute::By::Chunk,
        By::File => attribute::By::File,
        By::Entry => attribute::By::Entry,
        By::Kind => attribute::By::Kind,
    };
    let sort = match arguments.sort {
        cli::Sort::Size => attribute::Sort::Heaviest(measure),
        cli::Sort::Name => attribute::Sort::Name,
    };
    let answer = attribute(&lens, by, &selection.cells, arguments.within.as_deref(), sort);
    let show = &arguments.show;
    let text = match show.format {
        Format::Json => as_json("attribute", &record, &record.notices, &answer)?,
        Format::Csv => csv::attribute(&answer),
        Format::Markdown => {
            let screen = screen(show, measure);
            let top = (arguments.top > 0).then_some(arguments.top);
            markdown::attribute(&answer, &record, &screen, top)
                + &markdown::notices(&record.notices)
        }
        Format::Table => {
            let screen = screen(show, measure);
            let top = (arguments.top > 0).then_some(arguments.top);
            table::attribute(&answer, &record, &screen, top)
                + &table::notices(&record.notices, &screen)
        }
    };
    output::write(&text, show.output.as_deref(), show.color)?;
    Ok(Status::Held)
}

fn unmatched(name: &str, record: &Record) -> String {
    let packages = record.packages.iter().map(|package| package.name.as_str());
    let modules = record.modules.iter().map(|module| module.path.as_str());
    let remedy = remedy(name, packages.chain(modules));
    format!("no package, module or folder of this build is called `{name}`, {remedy}")
}
