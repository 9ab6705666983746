//! Whose bytes they are: cells and runs of every file, on the best basis there is for it.

use std::{collections::HashMap, ops::Range};

use rayon::iter::{IndexedParallelIterator, IntoParallelRefIterator, ParallelIterator};
use uvlet_ledger::{charges::Charges, shares::apportion, walk::Span};
use uvlet_record::{
    Basis, Cell, CellId, File, FileId, Format, Kind, ModuleId, Owner, Run, Shares,
    sizes::{Amount, Coded, Coding},
};

use crate::assemble::{inspect::Inspected, module_spans::ModuleSpan, modules::Modules};
use crate::{
    descriptions::described::{Described, DescribedFile, DescribedId},
    folder::{
        list::{Listed, Listing},
        text::Text,
    },
};

/// The files of the record, with their cells and runs.
#[derive(Default)]
pub struct Accounts {
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

    /// The same, but for assets that stand in the file at these places, in order.
    fn with_assets(self, assets: &[Range<usize>]) -> Self {
        if assets.is_empty() || !self.in_place {
            return self;
        }
        let mut list: Vec<Piece> = Vec::new();
        let mut assets = assets.iter().map(|range| range.start as u64..range.end as u64).peekable();
        let mut at = 0;
        for Piece { length, owner, basis } in self.list {
            let end = at + length;
            while at < end {
                let Some(asset) = assets.peek() else {
                    list.push(Piece { length: end - at, owner, basis });
                    break;
                };
                if asset.end <= at {
                    assets.next();
                } else if asset.start > at {
                    let until = asset.start.min(end);
                    list.push(Piece { length: until - at, owner, basis });
                    at = until;
                } else {
                    let until = asset.end.min(end);
                    list.push(Piece { length: until - at, owner: Owner::Asset, basis });
                    at = until;
                }
            }
            at = end;
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

/// What a file's bytes are charged by.
#[derive(Clone, Copy)]
pub struct Evidence<'a> {
    pub listing: &'a Listing,
    pub inspected: &'a [Inspected],
    pub modules: &'a Modules,
    /// The description that was chosen, with its place among the candidates.
    pub described: Option<(usize, &'a Described)>,
}

/// Charges every byte of every file to its owner.
pub fn accounts(evidence: Evidence<'_>) -> Accounts {
    let Evidence { listing, inspected, modules, described } = evidence;
    let by_path = described.map(|(_, described)| described.by_path()).unwrap_or_default();
    let mut accounts = Accounts::default();
    let of_files: Vec<(Pieces, Coded<Charges>)> = listing
        .counted
        .par_iter()
        .zip(inspected)
        .enumerate()
        .map(|(at, ((listed, kind), inspected))| {
            let said = by_path.get(listed.path.as_str()).copied();
            let file = FileEvidence { at, listed, kind: *kind, inspected, said, evidence };
            let pieces = file.pieces().with_assets(&inspected.inlined);
            let charges = traced(listed, inspected, &pieces);
            (pieces, charges)
        })
        .collect();
    for (at, (((listed, kind), inspected), (pieces, charges))) in
        listing.counted.iter().zip(inspected).zip(of_files).enumerate()
    {
        let said = by_path.get(listed.path.as_str());
        let source = said.and_then(|file| modules.module(file.source?));
        let mut file = file(listed, *kind, inspected);
        file.source = source.filter(|_| kind.is_asset());
        let (cells, runs) = (accounts.cells.len(), accounts.runs.len());
        accounts.charge(FileId::new(at), &pieces, &charges);
        accounts.code(&mut file, cells, inspected, &charges);
        file.cells = cells..accounts.cells.len();
        file.runs = runs..accounts.runs.len();
        accounts.files.push(file);
    }
    accounts
}

/// What is known of one file.
struct FileEvidence<'a> {
    at: usize,
    listed: &'a Listed,
    kind: Kind,
    inspected: &'a Inspected,
    said: Option<&'a DescribedFile>,
    evidence: Evidence<'a>,
}

impl FileEvidence<'_> {
    /// The best that is known: its source map, else the bundler's count, else the spans of module
    /// functions, else shares in proportion to sizes before minification.
    fn pieces(&self) -> Pieces {
        let bytes = self.listed.bytes;
        if !self.inspected.inline.is_empty() {
            return Pieces::placed(bytes, page_parts(&self.inspected.inline));
        }
        if self.kind.is_asset() {
            return Pieces::whole(bytes, Owner::Asset, Basis::Mapped);
        }
        if let Some(mapped) = self.mapped() {
            return mapped;
        }
        if self.inspected.is_glue {
            return Pieces::whole(bytes, Owner::Glue, Basis::Located);
        }
        let counted = || self.counted();
        let found = counted().or_else(|| self.apart()).or_else(|| self.rendered());
        let found = found.or_else(|| self.listed_only());
        found.unwrap_or_else(|| Pieces::whole(bytes, Owner::Unattributed, Basis::Mapped))
    }

    /// By the source map.
    fn mapped(&self) -> Option<Pieces> {
        let mapped = self.inspected.mapped.as_ref()?;
        let owner = |span: &Span| match span.source {
            Some(source) => self.evidence.modules.source(self.at, source as usize),
            None => Owner::Glue,
        };
        let starts = mapped.spans.iter().map(|span| (span.start, owner(span), Basis::Mapped));
        Some(Pieces::placed(self.listed.bytes, starts))
    }

    /// By the bundler's own count.
    fn counted(&self) -> Option<Pieces> {
        let said = self.said?;
        let counted = said.counted.as_ref()?;
        let bytes = self.listed.bytes;
        let sum: u64 = counted.iter().map(|(_, bytes)| *bytes).fold(0, u64::saturating_add);
        if said.bytes == Some(bytes) && sum <= bytes {
            let modules = counted.iter().map(|&(module, bytes)| (self.owner(module), bytes));
            return Some(Pieces::amounts(modules, bytes - sum, Basis::Reported));
        }
        // The file was changed after the bundler counted.
        let glue = said.bytes.unwrap_or(bytes).saturating_sub(sum);
        let weights: Vec<u64> =
            counted.iter().map(|(_, bytes)| *bytes).chain([glue.max(1)]).collect();
        let mut shares = apportion(bytes, &weights);
        let rest = shares.pop().unwrap_or(0);
        let modules = counted.iter().map(|&(module, _)| self.owner(module)).zip(shares);
        Some(Pieces::amounts(modules, rest, Basis::Estimated))
    }

    /// By the spans of module functions.
    fn apart(&self) -> Option<Pieces> {
        let (by, spans) = self.inspected.apart.as_ref()?;
        let (chosen, _) = self.evidence.described?;
        let of = |span: &ModuleSpan| span.module.map_or(Owner::Glue, |id| self.owner(id));
        let starts = spans.iter().map(|span| (span.start, of(span), span.basis));
        // Its modules are those of the description that was read with it.
        (*by == chosen).then(|| Pieces::placed(self.listed.bytes, starts))
    }

    /// By lengths before minification.
    fn rendered(&self) -> Option<Pieces> {
        let rendered = self.said?.rendered.as_ref()?;
        let bytes = self.listed.bytes;
        let sum: u64 = rendered.iter().map(|(_, bytes)| *bytes).fold(0, u64::saturating_add);
        let modules = rendered.iter().map(|&(module, _)| self.owner(module));
        if sum == 0 {
            return Some(Pieces::whole(bytes, Owner::Glue, Basis::Estimated));
        }
        let lengths = rendered.iter().map(|(_, bytes)| *bytes);
        // Not minified, or barely: what is left is the bundler's. Else the lengths give shares only.
        if sum <= bytes && (bytes - sum) * 20 <= bytes {
            return Some(Pieces::amounts(modules.zip(lengths), bytes - sum, Basis::Estimated));
        }
        let weights: Vec<u64> = lengths.collect();
        Some(Pieces::amounts(modules.zip(apportion(bytes, &weights)), 0, Basis::Estimated))
    }

    /// By the sizes of the modules that it is said to hold.
    fn listed_only(&self) -> Option<Pieces> {
        let said = self.said?;
        let (_, described) = self.evidence.described?;
        let bytes = self.listed.bytes;
        let modules: Vec<DescribedId> =
            said.slots.iter().flat_map(|slot| slot.modules.iter().copied()).collect();
        if modules.is_empty() {
            // A chunk without modules holds the bundler's own code alone.
            let is_runtime = described.can.says_loads && !said.ids.is_empty();
            let is_known = is_runtime && !described.modules.is_empty();
            return is_known.then(|| Pieces::whole(bytes, Owner::Glue, Basis::Located));
        }
        let weights: Vec<u64> =
            modules.iter().map(|&module| described.module(module).bytes.unwrap_or(0)).collect();
        let is_known = weights.iter().any(|&weight| weight > 0);
        let owners = modules.into_iter().map(|module| self.owner(module));
        is_known
            .then(|| Pieces::amounts(owners.zip(apportion(bytes, &weights)), 0, Basis::Estimated))
    }

    fn owner(&self, module: DescribedId) -> Owner {
        self.evidence.modules.described.get(module.0).copied().unwrap_or(Owner::Unattributed)
    }
}

/// A page is an asset but for the code in it, which may be anybody's.
fn page_parts(inline: &[(Range<usize>, bool)]) -> impl Iterator<Item = (usize, Owner, Basis)> + '_ {
    let parts = inline.iter().flat_map(|(code, is_glue)| {
        let owner = if *is_glue { Owner::Glue } else { Owner::Unattributed };
        [(code.start, owner), (code.end, Owner::Asset)]
    });
    let parts = std::iter::once((0, Owner::Asset)).chain(parts);
    parts.map(|(start, owner)| (start, owner, Basis::Mapped))
}

/// What the file's own streams spend on each part, where the parts' places are known and there are
/// several.
fn traced(listed: &Listed, inspected: &Inspected, pieces: &Pieces) -> Coded<Charges> {
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
    for coding in inspected.coded.codings() {
        let stream = inspected.coded.get(coding).and_then(|coded| coded.stream.as_ref());
        if let Some(spent) = stream.and_then(|stream| coding.charge(stream, &text, &ends).ok()) {
            charges.set(coding, spent);
        }
    }
    charges
}

/// A file that has no cells yet.
fn file(listed: &Listed, kind: Kind, inspected: &Inspected) -> File {
    let format = match kind {
        Kind::Script => inspected.format,
        Kind::Style => Format::Style,
        _ => Format::Other,
    };
    File {
        path: listed.path.clone(),
        kind,
        digest: inspected.digest.clone(),
        emitted: listed.bytes,
        encoded: Coded::default(),
        shares: Coded::default(),
        format,
        source: None,
        loads: Vec::new(),
        asset_loads: Vec::new(),
        externals: Vec::new(),
        elsewhere: Vec::new(),
        cells: 0..0,
        runs: 0..0,
    }
}

impl Accounts {
    /// Makes the cells and runs of a file, which comes next.
    fn charge(&mut self, id: FileId, pieces: &Pieces, charges: &Coded<Charges>) {
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
    }

    /// Gives a file its coded sizes, and shares out over its cells what is not traced.
    fn code(
        &mut self,
        file: &mut File,
        first_cell: usize,
        inspected: &Inspected,
        charges: &Coded<Charges>,
    ) {
        let is_alone = self.cells.len() == first_cell + 1;
        for coding in inspected.coded.codings() {
            let bytes = inspected.coded.get(coding).map_or(0, |coded| coded.bytes);
            file.encoded.set(coding, bytes);
            let is_traced = is_alone || charges.get(coding).is_some();
            let shares = if is_traced { Shares::Traced } else { Shares::Proportional };
            file.shares.set(coding, shares);
            if charges.get(coding).is_none() {
                self.share(first_cell, coding, 8 * bytes);
            }
        }
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
        let runs = &self.runs[range.clone()];
        let at = runs.partition_point(|run| run.start <= byte).checked_sub(1)?;
        match self.cells[runs[at].cell.at()].owner {
            Owner::Module(module) => Some(module),
            _ => None,
        }
    }
}
