//! Writes a fit request for each of the demo's sketches and each usual page into a folder: `demo_requests FOLDER`.

use metrosk_demo::{SEED, sketches};
use serde_json::json;
use std::{env, error::Error, fs, path::PathBuf};

fn main() -> Result<(), Box<dyn Error>> {
    let folder = PathBuf::from(env::args().nth(1).ok_or("a folder is needed")?);
    fs::create_dir_all(&folder)?;
    let pages = [
        ("12x12", "in", 12.0, 12.0, 0.25, 0.125),
        ("letter", "in", 8.5, 11.0, 0.25, 0.125),
        ("8x8", "in", 8.0, 8.0, 0.25, 0.0625),
        ("6x8", "in", 6.0, 8.0, 0.25, 0.0625),
        ("a4", "mm", 210.0, 297.0, 6.0, 1.0),
    ];
    for (n, sketch) in sketches(SEED).iter().enumerate() {
        for (name, unit, w, h, room, step) in pages {
            for to in [1, 2].into_iter().filter(|to| *to >= sketch.canvas.pages) {
                let approach = if to == sketch.canvas.pages { "scale" } else { "stretch" };
                let request = json!({
                    "format": "metrosk-fit/1", "unit": unit, "sketch": sketch.to_json(), "approach": approach, "snap": step,
                    "target": {"page": {"w": w, "h": h}, "pages": to, "margin": room, "fold_guard": room},
                });
                fs::write(folder.join(format!("{n}-{name}-{to}.json")), serde_json::to_string_pretty(&request)?)?;
            }
        }
    }
    Ok(())
}
