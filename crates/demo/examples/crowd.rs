//! Prints a fit request of 25 blocks, scaled to letter, for load.

use serde_json::json;

fn main() {
    let request = json!({
        "format": "metrosk-fit/1", "unit": "in", "sketch": metrosk_demo::crowd().to_json(), "approach": "scale", "snap": 0.125,
        "target": {"page": {"w": 8.5, "h": 11}, "pages": 1, "margin": 0.25, "fold_guard": 0.25},
    });
    println!("{request}");
}
