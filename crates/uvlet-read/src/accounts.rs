//! Whose bytes they are: cells and runs of every file, on the best basis there is for it.

use std::{collections::HashMap, ops::Range};

use rayon::iter::{IndexedParallelIterator, IntoParallelRefIterator, ParallelIterator};
use uvlet_ledger::{charges::Charges, shares::apportion, walk::Span};
use uvlet_record::{
    Basis, Cell, CellId, File, FileId, Form, Kind, ModuleId, Owner, Run, Shares,
    sizes::{Amount, Coded, Coding},
};

use crate::{
    bodies::Body,
    examine::Examined,
    folder::{Listed, Listing, Text},
    naming::Names,
    told::{Told, ToldFile},
};

/// The files of the record, with their cells and runs.
#[derive(Default)]
pub struct Ledger {
    /// By path.
    pub files: Vec<File>,
    /// In the order of files.
    pub cells: Vec<Cell>,
    /// In the order of files.
    pub runs: Vec<Run>,
}

/// A part of a file that one owner has.
struct Piece {
    length: u64,
    owner: Owner,
    basis: Basis,
}

/// The parts of a file, and whether they stand in it in this order.
struct Pieces {
    list: Vec<Piece>,
    in_place: bool,
}

impl Pieces {
    fn whole(length: u64, owner: Owner, basis: Basis) -> Self {
        Self { list: vec![Piece { length, owner, basis }], in_place: true }
    }

    /// Parts that begin at these places and reach to the next.
    fn placed(file: u64, starts: impl Iterator<Item = (usize, Owner, Basis)>) -> Self {
        let mut list: Vec<Piece> = Vec::new();
        let mut from = 0;
        for (start, owner, basis) in starts {
            if let Some(last) = list.last_mut() {
                last.length = start as u64 - from;
            }
            from = start as u64;
            list.push(Piece { length: 0, owner, basis });
        }
        if let Some(last) = list.last_mut() {
            last.length = file - from;
        }
        Self { list, in_place: true }
    }

    /// Amounts without places: of modules, and the rest.
    fn amounts(of: impl Iterator<Item = (Owner, u64)>, rest: u64, basis: Basis) -> Self {
        let modules = of.map(|(owner, length)| Piece { length, owner, basis });
        let glue = Piece { length: rest, owner: Owner::Glue, basis };
        Self { list: modules.chain((rest > 0).then_some(glue)).collect(), in_place: false }
    }
}

/// Charges every byte of every file to its owner.
pub fn ledger(
    listing: &Listing,
    examined: &[Examined],
    names: &Names,
    told: Option<&Told>,
) -> Ledger {
    let by_path = told.map(Told::by_path).unwrap_or_default();
    let mut ledger = Ledger::default();
    let accounts: Vec<(Pieces, Coded<Charges>)> = listing
        .counted
        .par_iter()
        .zip(examined)
        .enumerate()
        .map(|(at, ((listed, kind), examined))| {
            let said = told.and_then(|told| Some((told, *by_path.get(listed.path.as_str())?)));
            let pieces = pieces(at, listed, *kind, examined, names, said);
            let charges = traced(listed, examined, &pieces);
            (pieces, charges)
        })
        .collect();
    let files = listing.counted.iter().zip(examined).zip(accounts);
    for (at, (((listed, kind), examined), (pieces, charges))) in files.enumerate() {
        ledger.charge(FileId::new(at), listed, *kind, examined, &pieces, &charges);
        let said = told.and_then(|told| Some((told, *by_path.get(listed.path.as_str())?)));
        let source = said.and_then(|(_, file)| names.module(file.source?));
        ledger.files[at].source = source.filter(|_| kind.is_asset());
    }
    ledger
}

/// The best that is known of a file: its source map, else the bundler's count, else the spans of
/// module functions, else shares in proportion to sizes before minification.
fn pieces(
    at: usize,
    listed: &Listed,
    kind: Kind,
    examined: &Examined,
    names: &Names,
    said: Option<(&Told, &ToldFile)>,
) -> Pieces {
    let bytes = listed.bytes;
    if !examined.inline.is_empty() {
        return Pieces::placed(bytes, page_parts(&examined.inline));
    }
    if kind.is_asset() {
        return Pieces::whole(bytes, Owner::Asset, Basis::Mapped);
    }
    if let Some(owned) = &examined.owned {
        let owner = |span: &Span| match span.source {
            Some(source) => names.source(at, source as usize),
            None => Owner::Glue,
        };
        let starts = owned.spans.iter().map(|span| (span.start, owner(span), Basis::Mapped));
        return Pieces::placed(bytes, starts);
    }
    if examined.is_glue {
        return Pieces::whole(bytes, Owner::Glue, Basis::Located);
    }
    let nobodys = Pieces::whole(bytes, Owner::Unattributed, Basis::Mapped);
    let Some((told, file)) = said else { return nobodys };
    let owner = |module: usize| names.told.get(module).copied().unwrap_or(Owner::Unattributed);
    if let Some(counted) = &file.counted {
        let sum: u64 = counted.iter().map(|(_, bytes)| *bytes).fold(0, u64::saturating_add);
        if file.bytes == Some(bytes) && sum <= bytes {
            let modules = counted.iter().map(|&(module, bytes)| (owner(module), bytes));
            return Pieces::amounts(modules, bytes - sum, Basis::Reported);
        }
        // The file was changed after the bundler counted.
        let glue = file.bytes.unwrap_or(bytes).saturating_sub(sum);
        let weights: Vec<u64> =
            counted.iter().map(|(_, bytes)| *bytes).chain([glue.max(1)]).collect();
        let mut shares = apportion(bytes, &weights);
        let rest = shares.pop().unwrap_or(0);
        let modules = counted.iter().map(|&(module, _)| owner(module)).zip(shares);
        return Pieces::amounts(modules, rest, Basis::Estimated);
    }
    if let Some(bodies) = &examined.bodies {
        let of = |body: &Body| body.module.map_or(Owner::Glue, owner);
        return Pieces::placed(bytes, bodies.iter().map(|body| (body.start, of(body), body.basis)));
    }
    if let Some(rendered) = &file.rendered {
        let sum: u64 = rendered.iter().map(|(_, bytes)| *bytes).fold(0, u64::saturating_add);
        let modules = rendered.iter().map(|&(module, _)| owner(module));
        if sum == 0 {
            return Pieces::whole(bytes, Owner::Glue, Basis::Estimated);
        }
        // Not minified, or barely: what is left is the bundler's. Else the lengths give shares only.
        if sum <= bytes && (bytes - sum) * 20 <= bytes {
            let amounts = modules.zip(rendered.iter().map(|(_, bytes)| *bytes));
            return Pieces::amounts(amounts, bytes - sum, Basis::Estimated);
        }
        let weights: Vec<u64> = rendered.iter().map(|(_, bytes)| *bytes).collect();
        return Pieces::amounts(modules.zip(apportion(bytes, &weights)), 0, Basis::Estimated);
    }
    let modules: Vec<usize> =
        file.slots.iter().flat_map(|slot| slot.modules.iter().copied()).collect();
    if modules.is_empty() {
        // A chunk without modules holds the bundler's own code alone.
        let runs_only = told.connected && !file.ids.is_empty() && !told.modules.is_empty();
        return if runs_only { Pieces::whole(bytes, Owner::Glue, Basis::Located) } else { nobodys };
    }
    let weights: Vec<u64> =
        modules.iter().map(|&module| told.modules[module].bytes.unwrap_or(0)).collect();
    if weights.iter().all(|&weight| weight == 0) {
        return nobodys;
    }
    let shares = apportion(bytes, &weights);
    Pieces::amounts(modules.into_iter().map(owner).zip(shares), 0, Basis::Estimated)
}

/// A page is an asset but for the code in it, which may be anybody's.
fn page_parts(inline: &[Range<usize>]) -> impl Iterator<Item = (usize, Owner, Basis)> + '_ {
    let parts = inline
        .iter()
        .flat_map(|code| [(code.start, Owner::Unattributed), (code.end, Owner::Asset)]);
    let parts = std::iter::once((0, Owner::Asset)).chain(parts);
    parts.map(|(start, owner)| (start, owner, Basis::Mapped))
}

/// What the file's own streams spend on each part, where the parts' places are known and there are
/// several.
fn traced(listed: &Listed, examined: &Examined, pieces: &Pieces) -> Coded<Charges> {
    let mut charges = Coded::default();
    if !pieces.in_place || pieces.list.len() < 2 {
        return charges;
    }
    let ends = pieces.list.iter().scan(0, |end, piece| {
        *end += piece.length;
        Some(*end)
    });
    let ends: Vec<u64> = ends.collect();
    let Ok(text) = Text::of(listed) else { return charges };
    for coding in examined.packed.codings() {
        let stream = examined.packed.get(coding).and_then(|packed| packed.stream.as_ref());
        if let Some(spent) = stream.and_then(|stream| coding.charge(stream, &text, &ends).ok()) {
            charges.set(coding, spent);
        }
    }
    charges
}

impl Ledger {
    fn charge(
        &mut self,
        id: FileId,
        listed: &Listed,
        kind: Kind,
        examined: &Examined,
        pieces: &Pieces,
        charges: &Coded<Charges>,
    ) {
        let first_cell = self.cells.len();
        let first_run = self.runs.len();
        let mut cell_of: HashMap<Owner, usize> = HashMap::new();
        let mut start = 0;
        for (at, &Piece { length, owner, basis }) in pieces.list.iter().enumerate() {
            let cell = self.cell(&mut cell_of, id, owner, basis);
            for coding in charges.codings() {
                let spent = charges.get(coding).map_or(0, |spent| spent.stretches[at]);
                self.cells[cell].amount.add_bits(coding, spent);
            }
            self.cells[cell].amount.emitted += length;
            self.cells[cell].basis = self.cells[cell].basis.max(basis);
            if length > 0 && pieces.in_place {
                self.extend(first_run, Run { start, length, cell: CellId::new(cell) });
            }
            start += length;
        }
        for coding in charges.codings() {
            let spent = charges.get(coding).map_or(0, |spent| spent.container);
            let glue = self.cell(&mut cell_of, id, Owner::Glue, Basis::Mapped);
            self.cells[glue].amount.add_bits(coding, spent);
        }
        let (mut coded, mut shares) = (Coded::default(), Coded::default());
        let alone = self.cells.len() == first_cell + 1;
        for coding in examined.packed.codings() {
            let bytes = examined.packed.get(coding).map_or(0, |packed| packed.bytes);
            coded.set(coding, bytes);
            let is_traced = alone || charges.get(coding).is_some();
            shares.set(coding, if is_traced { Shares::Traced } else { Shares::Proportional });
            if charges.get(coding).is_none() {
                self.share(first_cell, coding, 8 * bytes);
            }
        }
        let form = match kind {
            Kind::Script => examined.form,
            Kind::Style => Form::Style,
            _ => Form::Other,
        };
        self.files.push(File {
            path: listed.path.clone(),
            kind,
            digest: examined.digest.clone(),
            emitted: listed.bytes,
            encoded: coded,
            shares,
            form,
            source: None,
            loads: Vec::new(),
            names: Vec::new(),
            externals: Vec::new(),
            cells: index(first_cell)..index(self.cells.len()),
            runs: index(first_run)..index(self.runs.len()),
        });
    }

    /// The cell of an owner in the file that is being charged.
    fn cell(
        &mut self,
        cell_of: &mut HashMap<Owner, usize>,
        file: FileId,
        owner: Owner,
        basis: Basis,
    ) -> usize {
        *cell_of.entry(owner).or_insert_with(|| {
            self.cells.push(Cell { file, owner, amount: Amount::default(), basis });
            self.cells.len() - 1
        })
    }

    /// Shares bits out over a file's cells in proportion to their bytes.
    fn share(&mut self, first_cell: usize, coding: Coding, bits: u64) {
        let cells = &mut self.cells[first_cell..];
        let weights: Vec<u64> = cells.iter().map(|cell| cell.amount.emitted).collect();
        // An empty file has a coded size all the same; its one cell bears it.
        let weights =
            if weights.iter().all(|&w| w == 0) { vec![1; weights.len()] } else { weights };
        for (cell, bits) in cells.iter_mut().zip(apportion(bits, &weights)) {
            cell.amount.add_bits(coding, bits);
        }
    }

    /// Adds a run, joined to the one before it where both are one owner's.
    fn extend(&mut self, first_run: usize, run: Run) {
        match self.runs[first_run..].last_mut() {
            Some(last) if last.cell == run.cell => last.length += run.length,
            _ => self.runs.push(run),
        }
    }

    /// The module that owns a byte of a file.
    pub fn module_at(&self, id: FileId, byte: u64) -> Option<ModuleId> {
        let range = &self.files[id.at()].runs;
        let runs = &self.runs[range.start as usize..range.end as usize];
        let at = runs.partition_point(|run| run.start <= byte).checked_sub(1)?;
        match self.cells[runs[at].cell.at()].owner {
            Owner::Module(module) => Some(module),
            _ => None,
        }
    }
}

fn index(at: usize) -> u32 {
    u32::try_from(at).unwrap_or(u32::MAX)
}
