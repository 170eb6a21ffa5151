//! A page's first plan where a team's call asks for it.

use super::{Defaults, start};
use crate::calls::{Call, What};
use crate::document::length_number;
use crate::length::Unit;
use crate::sketch::Sketch;
use serde_json::{Value, json};

/// The plan of a page that answers a team's call: its sketch, with the size and the pages that are asked for. `document` is the call
/// as it is kept, `id` and `revision` say which it is.
pub fn start_for_call(
    sketch: &Sketch,
    defaults: &Defaults,
    (call, document): (&Call, &Value),
    (id, revision): (&str, i32),
) -> Value {
    let mut plan = start(sketch, defaults);
    let unit = if plan["unit"] == Unit::Millimetre.name() {
        Unit::Millimetre
    } else {
        Unit::Inch
    };
    let mut kept = document.clone();
    // A page's copy speaks in the page's unit, and comes again nowhere.
    if let Some(fields) = kept.as_object_mut() {
        fields.shift_remove("unit");
        fields.shift_remove("repeats");
    }
    for (n, ask) in call.asks.iter().enumerate() {
        match &ask.what {
            What::Pages(count) => plan["fit"]["target"]["pages"] = (*count).into(),
            What::PageSize(size) | What::LargePhoto(size) => {
                let size =
                    json!({"w": length_number(size.w, unit), "h": length_number(size.h, unit)});
                kept["asks"][n]["w"] = size["w"].clone();
                kept["asks"][n]["h"] = size["h"].clone();
                if matches!(ask.what, What::PageSize(_)) {
                    plan["fit"]["target"]["page"] = size;
                }
            }
            _ => {}
        }
    }
    plan["call"] = json!({"call": kept, "of": {"id": id, "revision": revision}});
    plan
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::Plan;

    #[test]
    fn the_page_begins_with_what_is_asked() {
        let sketch =
            crate::notation::read("one page 12 x 12 in\nphoto p1 4x6 at 3, 2").expect("a sketch");
        let document = json!({
            "name": "Small and double", "unit": "mm", "due": "2026-11-28", "repeats": {"every": "weeks", "number": 2},
            "asks": [{"id": "a", "what": "pages", "count": 2}, {"id": "b", "what": "page-size", "w": 203.2, "h": 203.2}],
        });
        let call = Call::from_json(&document).expect("a call");
        let plan = start_for_call(&sketch, &Defaults::default(), (&call, &document), ("c1", 3));
        let read = Plan::from_json(&plan).expect("a plan");
        let target = read.request().target;
        assert_eq!(
            (target.pages, target.page.w),
            (2, crate::length::Length::inches(8, 1))
        );
        let own = read.call.decisions.call.expect("its call");
        assert_eq!((own.name.as_str(), own.repeats), ("Small and double", None));
        assert_eq!(plan["call"]["of"], json!({"id": "c1", "revision": 3}));
        assert_eq!(plan["call"]["call"]["asks"][1]["w"], 8);
    }
}
