//! Digests of JSON: the same for the same meaning, however its fields are ordered and its numbers written.

use serde_json::Value;
use sha2::{Digest as _, Sha256};
use std::fmt;

/// A SHA-256 over JSON values.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Digest([u8; 32]);

impl Digest {
    /// The digest of some values, in their order.
    pub fn of<'a>(values: impl IntoIterator<Item = &'a Value>) -> Digest {
        let mut hash = Sha256::new();
        values.into_iter().for_each(|v| take(&mut hash, v));
        Digest(hash.finalize().into())
    }

    /// The digest of an object's fields, as of the object itself.
    pub(super) fn of_fields<'a>(fields: impl Iterator<Item = (&'a String, &'a Value)>) -> Digest {
        let mut hash = Sha256::new();
        take_fields(&mut hash, fields);
        Digest(hash.finalize().into())
    }

    /// Its 32 bytes.
    pub const fn bytes(&self) -> &[u8; 32] {
        &self.0
    }
}

/// The first 16 hexadecimal digits: enough to tell one state of a page from another.
impl fmt::Display for Digest {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.0[..8].iter().try_for_each(|b| write!(f, "{b:02x}"))
    }
}

fn take(hash: &mut Sha256, value: &Value) {
    match value {
        Value::Null => part(hash, b'0', &[]),
        Value::Bool(yes) => part(hash, b'b', &[u8::from(*yes)]),
        Value::Number(n) => part(
            hash,
            b'n',
            &n.as_f64().unwrap_or_default().to_bits().to_le_bytes(),
        ),
        Value::String(text) => part(hash, b's', text.as_bytes()),
        Value::Array(items) => {
            part(hash, b'a', &(items.len() as u64).to_le_bytes());
            items.iter().for_each(|i| take(hash, i));
        }
        Value::Object(fields) => take_fields(hash, fields.iter()),
    }
}

fn take_fields<'a>(hash: &mut Sha256, fields: impl Iterator<Item = (&'a String, &'a Value)>) {
    // A field that is null says no more than one that is not there.
    let mut fields: Vec<_> = fields.filter(|(_, v)| !v.is_null()).collect();
    fields.sort_unstable_by_key(|(name, _)| name.as_str());
    part(hash, b'o', &(fields.len() as u64).to_le_bytes());
    for (name, value) in fields {
        part(hash, b's', name.as_bytes());
        take(hash, value);
    }
}

/// A tag and a length before each, so that no two values run into the same bytes.
fn part(hash: &mut Sha256, tag: u8, bytes: &[u8]) {
    hash.update([tag]);
    hash.update((bytes.len() as u64).to_le_bytes());
    hash.update(bytes);
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    #[test]
    fn the_same_meaning_has_one_digest() {
        let a = json!({"w": 12, "h": 8.0, "note": null});
        let b = json!({"h": 8, "w": 12.0});
        assert_eq!(Digest::of([&a]), Digest::of([&b]));
        for other in [json!({"w": 8, "h": 12}), json!({"w": 12}), json!(["w", 12])] {
            assert_ne!(Digest::of([&a]), Digest::of([&other]), "{other}");
        }
        assert_ne!(
            Digest::of([&json!("ab"), &json!("c")]),
            Digest::of([&json!("a"), &json!("bc")])
        );
    }
}
