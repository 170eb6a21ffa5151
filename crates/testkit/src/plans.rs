//! Plans as answers have them.

use serde_json::{Value, json};

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
