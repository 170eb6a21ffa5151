//! What speaks for each block that is read in drawn pictures, and whether it is right: for fitting how sure blocks are (`train/sure.py`).
//!
//! ```sh
//! cargo run --release --package metrosk-drawn --example evidence -- FIRST COUNT [tuning|checking|demo] > evidence.jsonl
//! ```
//!
//! With `demo` the same layouts are drawn as the demo draws pictures: in other hands than the machine's own.
//!
//! A line for each block: its kind, how sure it is said to be, its evidence, and whether it was drawn so.

use metrosk_core::sketch::Sketch;
use metrosk_demo::{Style, picture};
use metrosk_drawn::{Set, asked, right, sample};
use metrosk_vision::read_everything;
use serde_json::json;
use std::error::Error;

fn main() -> Result<(), Box<dyn Error>> {
    let given: Vec<String> = std::env::args().skip(1).collect();
    let [first, count, rest @ ..] = &given[..] else {
        return Err("FIRST COUNT [tuning|checking]".into());
    };
    let (first, count): (u64, u64) = (first.parse()?, count.parse()?);
    let (set, is_demo) = match rest.first().map(String::as_str) {
        None | Some("tuning") => (Set::Tuning, false),
        Some("checking") => (Set::Checking, false),
        Some("demo") => (Set::Tuning, true),
        Some(other) => return Err(format!("“{other}”: tuning, checking or demo").into()),
    };
    for number in first..first + count {
        let mut drawn = sample(number, set);
        if is_demo {
            let styles = [Style::Clean, Style::Pencil, Style::Phone];
            let style = styles[(number % 3) as usize];
            drawn.picture = picture(&drawn.truth, style, number);
        }
        let Ok(read) = read_everything(&drawn.picture, &asked(&drawn.truth)) else {
            continue;
        };
        let sketch = Sketch::from_json(&read.sketch)?;
        let is_right = right(&drawn.truth, &sketch, 0.85);
        let blocks = read.sketch["blocks"].as_array();
        for ((block, evidence), is_right) in blocks
            .into_iter()
            .flatten()
            .zip(&read.evidence)
            .zip(is_right)
        {
            let line = json!({
                "picture": number, "kind": block["kind"], "sure": block["sure"], "evidence": evidence.numbers(), "right": is_right,
            });
            println!("{line}");
        }
    }
    Ok(())
}
