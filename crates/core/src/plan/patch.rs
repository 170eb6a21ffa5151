//! Changes of a plan as JSON merge patches (RFC 7396): what a patch names is set, what it names as null is removed.

use serde_json::{Map, Value};

/// The document with a patch applied.
pub fn patched(document: &Value, patch: &Value) -> Value {
    let mut document = document.clone();
    json_patch::merge(&mut document, patch);
    document
}

/// The patch that takes one document to another; an empty object where they are the same.
pub fn between(from: &Value, to: &Value) -> Value {
    let (Value::Object(from), Value::Object(to)) = (from, to) else {
        return to.clone();
    };
    let mut patch = Map::new();
    for (name, to) in to.iter().filter(|(_, v)| !v.is_null()) {
        match from.get(name) {
            Some(from) if from == to => {}
            Some(from @ Value::Object(_)) if to.is_object() => {
                patch.insert(name.clone(), between(from, to));
            }
            _ => {
                patch.insert(name.clone(), to.clone());
            }
        }
    }
    for name in from.keys() {
        if to.get(name).is_none_or(Value::is_null) {
            patch.insert(name.clone(), Value::Null);
        }
    }
    Value::Object(patch)
}

/// Whether a document is already as a patch would leave it.
pub fn holds(document: &Value, patch: &Value) -> bool {
    patched(document, patch) == *document
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use serde_json::json;

    fn document() -> impl Strategy<Value = Value> {
        let leaf = prop_oneof![
            any::<i16>().prop_map(Value::from),
            "[a-c]{0,2}".prop_map(Value::from),
            any::<bool>().prop_map(Value::from),
        ];
        let inner = leaf.prop_recursive(3, 24, 4, |inner| {
            prop_oneof![
                prop::collection::vec(inner.clone(), 0..3).prop_map(Value::from),
                prop::collection::btree_map("[a-d]", inner, 0..4)
                    .prop_map(|m| Value::Object(m.into_iter().collect())),
            ]
        });
        prop::collection::btree_map("[a-d]", inner, 0..4)
            .prop_map(|m| Value::Object(m.into_iter().collect()))
    }

    proptest! {
        #[test]
        fn a_patch_between_two_documents_leads_from_one_to_the_other(a in document(), b in document()) {
            let patch = between(&a, &b);
            prop_assert_eq!(&patched(&a, &patch), &b);
            prop_assert!(holds(&b, &patch));
            prop_assert_eq!(holds(&a, &patch), a == b);
            prop_assert_eq!(patched(&b, &between(&b, &a)), a);
        }
    }

    #[test]
    fn a_patch_names_only_what_differs() {
        let from = json!({"fit": {"snap": 0.125, "pins": []}, "sketch": {"turn": 90}});
        let to = json!({"fit": {"snap": 0.25, "pins": []}, "sketch": {}});
        assert_eq!(
            between(&from, &to),
            json!({"fit": {"snap": 0.25}, "sketch": {"turn": null}})
        );
    }
}
