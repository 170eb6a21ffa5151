//! Plans as answers have them.

use serde_json::{Value, json};

/// How many photos a page has places for: the count that is asked for, or the prints that don't lie aside.
pub fn photo_count(page: &Value) -> usize {
    let photos = &page["plan"]["photos"]["photos"];
    match photos.as_array() {
        Some(prints) => prints.iter().filter(|p| p["aside"] != true).count(),
        None => photos["count"].as_u64().unwrap_or_default() as usize,
    }
}

/// The fit request that the sections of a page's plan make together.
pub fn fit_of(page: &Value) -> Value {
    let plan = &page["plan"];
    let mut fit = json!({"format": "metrosk-fit/1", "unit": plan["unit"]});
    for section in ["sketch", "photos", "fit"] {
        for (name, value) in plan[section].as_object().into_iter().flatten() {
            if name != "mark" && name != "grounds" {
                fit[name.as_str()] = value.clone();
            }
        }
    }
    fit
}
