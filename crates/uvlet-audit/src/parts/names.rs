//! What names of files tell.

use uvlet_record::{Chunk, FileId, Record};

/// Whether the name of a file holds more than the name of its chunk: a digest of its contents. None of a
/// file that is no chunk's.
pub fn is_named_by_contents(record: &Record, id: FileId, chunk: Option<&Chunk>) -> Option<bool> {
    let path = record.file(id).path.as_str();
    let name = path.rsplit('/').next().unwrap_or(path);
    let stem = name.rsplit_once('.').map_or(name, |(stem, _)| stem);
    let chunk = chunk?;
    Some(stem != chunk.stem && stem.starts_with(&chunk.stem))
}
