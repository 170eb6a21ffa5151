//! The demo's sketches on every usual page, with as many photos as drawn, more and fewer, by `auto`: the table of docs/FIT.md.
//!
//! `fit_table` prints it; `fit_table FOLDER` also writes each request and answer there, for a scorer of one's own.

use metrosk_core::fit::{self, Outcome, Proposal, Request};
use metrosk_core::sketch::Sketch;
use metrosk_demo::{SEED, sketches};
use serde_json::{Value, json};
use std::collections::BTreeMap;
use std::path::{Path, PathBuf};
use std::{env, error::Error, fs, time::Instant};

/// Name, unit, width, height, margin and fold guard, ruler step.
const PAGES: [(&str, &str, f64, f64, f64, f64); 7] = [
    ("12x12", "in", 12.0, 12.0, 0.25, 0.125),
    ("8x8", "in", 8.0, 8.0, 0.25, 0.0625),
    ("letter", "in", 8.5, 11.0, 0.25, 0.125),
    ("level letter", "in", 11.0, 8.5, 0.25, 0.125),
    ("6x8", "in", 6.0, 8.0, 0.25, 0.0625),
    ("9x12", "in", 9.0, 12.0, 0.25, 0.125),
    ("A4", "mm", 210.0, 297.0, 6.0, 1.0),
];
/// How many photos more than drawn are asked for.
const PHOTOS: [i32; 4] = [0, -1, 1, 2];

/// What is added up over a group of fits.
#[derive(Default)]
struct Group {
    fits: usize,
    conflicts: usize,
    faults: usize,
    drift: f64,
    worst_mean: f64,
    worst: f64,
    lines: (usize, usize),
    relations: (usize, usize),
    contacts: (usize, usize),
    trimmed: f64,
    shape: f64,
    time: Vec<f64>,
    ways: usize,
}

impl Group {
    fn add(&mut self, request: &Request, proposals: &[Proposal], ms: f64) {
        let best = &proposals[0];
        let m = &best.measures;
        self.fits += 1;
        self.faults += proposals
            .iter()
            .map(|p| p.faults(request).len())
            .sum::<usize>();
        self.drift += m.drift_mean;
        self.worst_mean = self.worst_mean.max(m.drift_mean);
        self.worst = self.worst.max(m.drift_max);
        for (sum, kept) in [
            (&mut self.lines, m.alignments),
            (&mut self.relations, m.relations),
            (&mut self.contacts, m.contacts),
        ] {
            sum.0 += kept.kept;
            sum.1 += kept.of;
        }
        self.trimmed += m.trimmed;
        self.shape += m.slot_shape;
        self.time.push(ms);
        self.ways += proposals.len();
    }

    fn row(&mut self, name: &str) -> String {
        let n = self.fits.max(1) as f64;
        let share = |(kept, of): (usize, usize)| {
            if of == 0 {
                "-".to_owned()
            } else {
                format!("{:.1} %", 100.0 * kept as f64 / of as f64)
            }
        };
        self.time.sort_by(f64::total_cmp);
        let at = |q: f64| {
            self.time
                .get(((self.time.len().max(1) - 1) as f64 * q) as usize)
                .copied()
                .unwrap_or_default()
        };
        format!(
            "| {name} | {} | {} | {} | {:.1} | {:.2} / {:.2} / {:.1} % | {} | {} | {} | {:.2} | {:.1} % | {:.0} / {:.0} ms |",
            self.fits,
            self.conflicts,
            self.faults,
            self.ways as f64 / n,
            100.0 * self.drift / n,
            100.0 * self.worst_mean,
            100.0 * self.worst,
            share(self.lines),
            share(self.relations),
            share(self.contacts),
            self.shape / n,
            100.0 * self.trimmed / n,
            at(0.5),
            at(1.0),
        )
    }
}

fn group_of(sketch: &Sketch, (w, h): (f64, f64), to: u8, more: i32) -> &'static str {
    let page = sketch.canvas.page;
    let same = (page.w.ticks() as f64 / page.h.ticks() as f64 - w / h).abs() < 1e-3;
    match (sketch.canvas.pages, to) {
        (1, 2) if more != 0 => "6 one page to two, photos changed",
        (1, 2) => "5 one page to two",
        (2, 1) => "4 two pages to one",
        _ if more != 0 => "3 photos changed",
        _ if same => "1 same page shape",
        _ => "2 other page shape",
    }
}

fn save(folder: &Path, name: &str, request: &Value, answer: &Value) -> Result<(), Box<dyn Error>> {
    for (part, value) in [("requests", request), ("answers", answer)] {
        fs::create_dir_all(folder.join(part))?;
        fs::write(
            folder.join(part).join(format!("{name}.json")),
            serde_json::to_string(value)?,
        )?;
    }
    Ok(())
}

fn main() -> Result<(), Box<dyn Error>> {
    let folder = env::args().nth(1).map(PathBuf::from);
    let mut groups: BTreeMap<&str, Group> = BTreeMap::new();
    for (n, sketch) in sketches(SEED).iter().enumerate() {
        for (name, unit, w, h, room, step) in PAGES {
            for to in [1, 2] {
                for more in PHOTOS {
                    let count = sketch.photo_slots() as i32 + more;
                    if count < 1 {
                        continue;
                    }
                    let mut json = json!({
                        "format": "metrosk-fit/1", "unit": unit, "sketch": sketch.to_json(), "snap": step,
                        "target": {"page": {"w": w, "h": h}, "pages": to, "margin": room, "fold_guard": room},
                    });
                    if more != 0 {
                        json["photos"] = json!({"count": count});
                    }
                    let request = Request::from_json(&json)?;
                    let start = Instant::now();
                    let outcome = fit::fit(&request);
                    let ms = start.elapsed().as_secs_f64() * 1e3;
                    let group = groups
                        .entry(group_of(sketch, (w, h), to, more))
                        .or_default();
                    match &outcome {
                        Outcome::Proposals(proposals) => group.add(&request, proposals, ms),
                        Outcome::Conflict(_) => group.conflicts += 1,
                    }
                    if let Some(folder) = &folder {
                        let file = format!("{n}-{}-{to}-{more:+}", name.replace(' ', "-"));
                        save(folder, &file, &json, &outcome.to_json(request.unit))?;
                    }
                }
            }
        }
    }
    println!(
        "| group | fits | conflicts | faults | ways | drift: mean / worst fit / any block | lines | relations | contacts | slot shape | trimmed | time: median / longest |"
    );
    println!("|---|---|---|---|---|---|---|---|---|---|---|---|");
    for (name, group) in &mut groups {
        println!("{}", group.row(&name[2..]));
    }
    println!(
        "{} fits",
        groups.values().map(|g| g.fits + g.conflicts).sum::<usize>()
    );
    Ok(())
}
