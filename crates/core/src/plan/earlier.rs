//! Plans of version 1 had one fit request and the stations' marks beside it: they are brought up as they are read.

use super::grounds::Grounds;
use super::stations::Station;
use super::{FORMAT, sections_of};
use serde_json::{Map, Value, json};
use std::borrow::Cow;

/// The `format` of plans of version 1.
pub(crate) const FORMAT_1: &str = "metrosk-plan/1";

/// A plan in today's format. What is no plan of version 1 is left as it is.
pub fn brought_up(plan: &Value) -> Cow<'_, Value> {
    if plan.get("format").and_then(Value::as_str) != Some(FORMAT_1) {
        return Cow::Borrowed(plan);
    }
    let mut today = plan.as_object().cloned().unwrap_or_default();
    let fit = today.shift_remove("fit").unwrap_or(Value::Null);
    let marks = today.shift_remove("stations");
    today.insert("format".to_owned(), FORMAT.into());
    match sections_of(&fit) {
        Some(sections) => today.extend(sections),
        // What can't be taken apart is told by the reader, where it stood.
        None => {
            today.insert("fit".to_owned(), fit);
        }
    }
    let marks = marks.as_ref().and_then(Value::as_object);
    for (name, mark) in marks.into_iter().flatten() {
        let section = today
            .entry(name.clone())
            .or_insert_with(|| Value::Object(Map::new()));
        if let Some(section) = section.as_object_mut() {
            section.insert("mark".to_owned(), mark.clone());
        }
    }
    let mut today = Value::Object(today);
    for station in Station::ALL {
        if today[station.name()]["mark"] == "settled" {
            let grounds = Grounds::of(&today, station);
            today[station.name()]["grounds"] = grounds.to_json();
        }
        if today[station.name()] == json!(null) {
            today
                .as_object_mut()
                .map(|fields| fields.shift_remove(station.name()));
        }
    }
    Cow::Owned(today)
}
