//! Draws sketches in many manners, reads each back, and tells how much was found, by style and by manner:
//!
//! ```sh
//! cargo run --release --package metrosk-drawn --example score -- [COUNT] [tuning|checking] [FOLDER to keep the pictures in]
//! ```

use metrosk_core::sketch::Sketch;
use metrosk_drawn::{Found, Set, asked, compare, sample};
use metrosk_vision::{jpeg, read};
use std::collections::BTreeMap;
use std::error::Error;
use std::path::Path;

/// Found at two overlaps.
type Row = (Found, Found, usize);

fn main() -> Result<(), Box<dyn Error>> {
    let mut given = std::env::args().skip(1);
    let count: u64 = given.next().map_or(Ok(100), |n| n.parse())?;
    let set = match given.next().as_deref() {
        None | Some("tuning") => Set::Tuning,
        Some("checking") => Set::Checking,
        Some(other) => return Err(format!("“{other}”: tuning or checking").into()),
    };
    let folder = given.next();
    // The numbers of one set are none of the other's.
    let first = if set == Set::Tuning { 0 } else { 1 << 32 };
    let mut rows: BTreeMap<String, Row> = BTreeMap::new();
    for number in first..first + count {
        let drawn = sample(number, set);
        let read = read(&drawn.picture, &asked(&drawn.truth), &|_| true).ok();
        let mut nothing = drawn.truth.clone();
        nothing.blocks.clear();
        let found = match &read {
            Some(read) => Sketch::from_json(&read.sketch)?,
            None => nothing,
        };
        let (at85, at70) = (
            compare(&drawn.truth, &found, 0.85),
            compare(&drawn.truth, &found, 0.7),
        );
        let manner = drawn.manner;
        let names = manner
            .variants()
            .into_iter()
            .map(|(name, kept)| if kept { format!("{name} (kept)") } else { name });
        let style = format!("= {}", manner.style());
        for name in names.chain([style, "= all".to_owned()]) {
            let row = rows.entry(name).or_default();
            *row = (row.0.and(at85), row.1.and(at70), row.2 + 1);
        }
        if let Some(folder) = &folder {
            let path = Path::new(folder).join(format!("{number}.jpg"));
            std::fs::write(path, jpeg(&drawn.picture, 88)?)?;
        }
    }
    println!(
        "{:32} {:>5} {:>7} {:>7} {:>7} {:>7} {:>6}",
        "manner", "of", "R85", "P85", "R70", "P70", "kind"
    );
    for (name, (at85, at70, count)) in &rows {
        let kind = at70.kind as f64 / at70.agree.max(1) as f64;
        println!(
            "{name:32} {count:5} {:7.2} {:7.2} {:7.2} {:7.2} {kind:6.2}",
            at85.recall(),
            at85.precision(),
            at70.recall(),
            at70.precision()
        );
    }
    Ok(())
}
