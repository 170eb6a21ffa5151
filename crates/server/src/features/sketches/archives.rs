//! Archives (zip) of open documents: a drawer's sketches in and out, and all of a team's things for moving house.

use crate::features::history::store as revisions;
use crate::features::pages::store::{self as pages, Shelf};
use crate::features::sketches::store::{self as sketches, SketchRow};
use crate::http::error::Failure;
use crate::http::extractors::read_document;
use crate::http::names;
use crate::state::App;
use metrosk_core::document::{Finding, Invalid};
use metrosk_core::sketch::Sketch;
use serde_json::{Value, json};
use std::collections::BTreeSet;
use std::io::{Cursor, Read, Write};
use uuid::Uuid;
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

/// Sketches in one archive at the most.
const MOST_FILES: usize = 500;
/// One document in it at the most.
const LARGEST: u64 = 2 * 1024 * 1024;
/// All of them together: an archive that unpacks to more is no drawer.
const LARGEST_ALL: u64 = 64 * 1024 * 1024;

/// The sketches of a document or of an archive of documents: all of them, or what is wrong with which.
pub(crate) fn read_sketches(bytes: &[u8]) -> Result<Vec<Sketch>, Invalid> {
    if !bytes.starts_with(b"PK") {
        return Ok(vec![Sketch::from_json(&read_document(bytes)?)?]);
    }
    let unreadable = |e: &dyn std::fmt::Display| {
        Invalid::one(
            "",
            format!("an archive that can't be read ({e})"),
            "a zip archive of sketch documents",
        )
    };
    let mut archive = ZipArchive::new(Cursor::new(bytes)).map_err(|e| unreadable(&e))?;
    if archive.len() > MOST_FILES {
        return Err(Invalid::one(
            "",
            format!("{} files", archive.len()),
            format!("at most {MOST_FILES} files"),
        ));
    }
    let (mut found, mut findings, mut total) = (Vec::new(), Vec::new(), 0);
    for n in 0..archive.len() {
        let mut file = archive.by_index(n).map_err(|e| unreadable(&e))?;
        let name = file.name().map_err(|e| unreadable(&e))?.into_owned();
        if file.is_dir() || !name.ends_with(".json") {
            continue;
        }
        let mut text = Vec::new();
        let read = file
            .by_ref()
            .take(LARGEST + 1)
            .read_to_end(&mut text)
            .map_err(|e| unreadable(&e))?;
        total += read as u64;
        if read as u64 > LARGEST || total > LARGEST_ALL {
            return Err(Invalid::one(
                &name,
                "a document or an archive that is too large",
                "documents of at most 2 MB, 64 MB in all",
            ));
        }
        match read_document(&text).and_then(|v| Sketch::from_json(&v)) {
            Ok(sketch) => found.push(sketch),
            Err(invalid) => findings.extend(invalid.findings.into_iter().map(|f| Finding {
                path: format!("{name}: {}", f.path),
                ..f
            })),
        }
    }
    if !findings.is_empty() {
        return Err(Invalid { findings });
    }
    if found.is_empty() {
        return Err(Invalid::one(
            "",
            "an archive without sketch documents",
            "a zip archive with at least one .metrosk.json",
        ));
    }
    Ok(found)
}

/// A drawer's sketches as an archive.
pub(crate) fn sketches(rows: &[SketchRow]) -> Result<Vec<u8>, Failure> {
    let mut archive = Archive::new();
    for row in rows {
        archive.add("", &row.name, &row.document)?;
    }
    archive.finish()
}

/// All of a team's things: sketches, pages with every revision, what is put away too.
pub(crate) async fn team(app: &App, team: Uuid, name: &str) -> Result<Vec<u8>, Failure> {
    let mut archive = Archive::new();
    let mut counts = (0, 0);
    for archived in [false, true] {
        for row in sketches::list(&app.pool, team, archived).await? {
            archive.add(
                if archived {
                    "sketches/set aside/"
                } else {
                    "sketches/"
                },
                &row.name,
                &row.document,
            )?;
            counts.0 += 1;
        }
    }
    for shelf in [Shelf::Making, Shelf::Finished, Shelf::Archived] {
        for row in pages::list(&app.pool, team, shelf, i64::MAX, 0).await? {
            let mut history = Vec::new();
            for revision in revisions::list(&app.pool, team, row.id, i32::MAX, i64::MAX)
                .await?
                .into_iter()
                .rev()
            {
                let plan = revisions::plan_at(&app.pool, team, row.id, revision.revision)
                    .await?
                    .unwrap_or_default();
                let made_at = revision
                    .made_at
                    .format(&time::format_description::well_known::Rfc3339)
                    .unwrap_or_default();
                history.push(json!({
                    "revision": revision.revision, "author": revision.author, "reason": revision.reason, "made_at": made_at,
                    "names": revision.names, "plan": plan,
                }));
            }
            let document = json!({
                "format": "metrosk-page/1", "name": row.name, "due": row.due.map(|d| d.to_string()), "finished": row.finished_at.is_some(),
                "archived": row.archived_at.is_some(), "revisions": history,
            });
            archive.add("pages/", &row.name, &document)?;
            counts.1 += 1;
        }
    }
    archive.add(
        "",
        "team",
        &json!({"format": "metrosk-team/1", "name": name, "sketches": counts.0, "pages": counts.1}),
    )?;
    archive.finish()
}

/// An archive being written; two things of one name get two file names.
struct Archive {
    zip: ZipWriter<Cursor<Vec<u8>>>,
    taken: BTreeSet<String>,
}

impl Archive {
    fn new() -> Archive {
        Archive {
            zip: ZipWriter::new(Cursor::new(Vec::new())),
            taken: BTreeSet::new(),
        }
    }

    fn add(&mut self, folder: &str, name: &str, document: &Value) -> Result<(), Failure> {
        let plain = names::file_name(name, "");
        let first = format!("{folder}{plain}.metrosk.json");
        let others = (2..).map(|n| format!("{folder}{plain}-{n}.metrosk.json"));
        let file = std::iter::once(first)
            .chain(others)
            .find(|f| self.taken.insert(f.clone()))
            .unwrap_or_default();
        let text =
            serde_json::to_vec_pretty(document).map_err(|e| Failure::Internal(e.to_string()))?;
        let written = self
            .zip
            .start_file(file, SimpleFileOptions::default())
            .and_then(|()| Ok(self.zip.write_all(&text)?));
        written.map_err(|e| Failure::Internal(format!("an archive can't be written: {e}")))
    }

    fn finish(self) -> Result<Vec<u8>, Failure> {
        Ok(self
            .zip
            .finish()
            .map_err(|e| Failure::Internal(format!("an archive can't be written: {e}")))?
            .into_inner())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn row(name: &str) -> SketchRow {
        let document = metrosk_demo::sketches(metrosk_demo::SEED)
            .swap_remove(0)
            .to_json();
        SketchRow {
            id: Uuid::nil(),
            name: name.to_owned(),
            document,
            made_at: time::OffsetDateTime::UNIX_EPOCH,
            archived_at: None,
            picture_id: None,
            lift_id: None,
            revision: 1,
            pages: 0,
        }
    }

    #[test]
    fn a_drawer_goes_out_and_comes_in_again() {
        let bytes = sketches(&[row("One"), row("One"), row("Two")]).unwrap();
        let found = read_sketches(&bytes).unwrap();
        assert_eq!(found.len(), 3, "two of one name are two files");
        assert_eq!(found[0].to_json(), row("One").document);
    }

    #[test]
    fn a_broken_document_is_told_by_its_file_and_nothing_comes_in() {
        let mut broken = row("Broken");
        broken.document["blocks"][0]["kind"] = "foto".into();
        let bytes = sketches(&[row("Good"), broken]).unwrap();
        let findings = read_sketches(&bytes).expect_err("one is broken").findings;
        assert_eq!(findings[0].path, "broken.metrosk.json: blocks[0].kind");
    }

    #[test]
    fn what_is_no_archive_is_told() {
        assert!(read_sketches(b"PK but no archive").is_err());
        assert!(read_sketches(b"not json either").is_err());
        let empty = Archive::new().finish().unwrap();
        assert!(
            read_sketches(&empty).expect_err("nothing in it").findings[0]
                .found
                .contains("without sketch")
        );
    }
}
