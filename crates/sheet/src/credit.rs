//! Whom a page owes its sketch to.

use metrosk_core::sketch::Sketch;
use serde_json::Value;

/// The credit line of a sketch: its name, its maker, and the chain of earlier makers, oldest first.
pub fn credit(sketch: &Sketch) -> String {
    let origin = sketch.other.get("origin").unwrap_or(&Value::Null);
    let text = |name: &str| {
        origin
            .get(name)
            .and_then(Value::as_str)
            .map(str::trim)
            .filter(|t| !t.is_empty())
    };
    let verb = match text("how") {
        Some("scraplift") => "Lifted from",
        _ => "Sketch",
    };
    let name = if sketch.name.trim().is_empty() {
        "without a name"
    } else {
        sketch.name.trim()
    };
    let by = text("maker")
        .map(|m| format!(" by {m}"))
        .unwrap_or_default();
    let chain: Vec<&str> = origin
        .get("after")
        .and_then(Value::as_array)
        .into_iter()
        .flatten()
        .filter_map(Value::as_str)
        .collect();
    let after = if chain.is_empty() {
        String::new()
    } else {
        format!(", after {}", chain.join(", then "))
    };
    format!("{verb} “{name}”{by}{after}")
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn with(origin: Value) -> Sketch {
        let mut sketch = metrosk_demo::sketches(1).swap_remove(0);
        sketch.other.insert("origin".to_owned(), origin);
        sketch
    }

    #[test]
    fn the_chain_is_told_oldest_first() {
        let lifted =
            with(json!({"how": "scraplift", "maker": "Teal", "after": ["Gull", "Plover"]}));
        assert_eq!(
            credit(&lifted),
            "Lifted from “Three by the tide line” by Teal, after Gull, then Plover"
        );
        assert_eq!(
            credit(&with(json!({"how": "own"}))),
            "Sketch “Three by the tide line”"
        );
        assert_eq!(
            credit(&with(Value::Null)),
            "Sketch “Three by the tide line”"
        );
    }
}
