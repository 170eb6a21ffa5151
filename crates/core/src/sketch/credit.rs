//! Whom a sketch is owed to: its maker, and the chain of makers before her.

use super::Sketch;
use serde_json::Value;

impl Sketch {
    /// The makers that a page from this sketch credits, in a sentence; none for a sketch of one's own with nobody before it.
    pub fn credit(&self) -> Option<String> {
        credit_of(self.other.get("origin")?)
    }
}

/// The makers that a sketch of this `origin` is owed to, in a sentence.
pub fn credit_of(origin: &Value) -> Option<String> {
    let text = |name: &str| {
        origin
            .get(name)
            .and_then(Value::as_str)
            .map(str::trim)
            .filter(|t| !t.is_empty())
    };
    let after: Vec<&str> = origin
        .get("after")
        .and_then(Value::as_array)
        .into_iter()
        .flatten()
        .filter_map(Value::as_str)
        .collect();
    let after: Vec<&str> = after
        .into_iter()
        .map(str::trim)
        .filter(|t| !t.is_empty())
        .collect();
    let chain = match &after[..] {
        [] => String::new(),
        [one] => format!(", after {one}"),
        [most @ .., last] => format!(", after {} and {last}", most.join(", ")),
    };
    let first = match (text("how"), text("maker")) {
        (Some("scraplift"), Some(maker)) => format!("Lifted from a page by {maker}"),
        (Some("scraplift"), None) => "Lifted from a page whose maker is not named".to_owned(),
        (Some("own"), None) | (None, None) if after.is_empty() => return None,
        (_, Some(maker)) => format!("Sketch by {maker}"),
        (_, None) if after.is_empty() => return None,
        (_, None) => "Sketch".to_owned(),
    };
    Some(format!("{first}{chain}."))
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn credit(origin: Value) -> Option<String> {
        let sketch = json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Any", "origin": origin,
            "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": []});
        Sketch::from_json(&sketch)
            .expect("the test's own sketch is valid")
            .credit()
    }

    #[test]
    fn the_maker_and_the_chain_are_named() {
        let lifted = json!({"how": "scraplift", "maker": "Brisa Lund", "after": ["Teal Amund", "Ode Marsh"]});
        assert_eq!(
            credit(lifted).as_deref(),
            Some("Lifted from a page by Brisa Lund, after Teal Amund and Ode Marsh.")
        );
        assert_eq!(
            credit(json!({"how": "challenge", "maker": "Ode Marsh"})).as_deref(),
            Some("Sketch by Ode Marsh.")
        );
        assert_eq!(
            credit(json!({"how": "challenge", "after": ["Ode Marsh"]})).as_deref(),
            Some("Sketch, after Ode Marsh.")
        );
        assert_eq!(
            credit(json!({"how": "scraplift"})).as_deref(),
            Some("Lifted from a page whose maker is not named.")
        );
    }

    #[test]
    fn nobody_is_credited_for_ones_own() {
        assert_eq!(credit(json!({"how": "own"})), None);
        assert_eq!(credit(json!({"how": "challenge", "maker": "  "})), None);
    }
}
