//! A cursor over JSON that remembers its path and collects findings.

use super::{Finding, Invalid};
use crate::length::{Length, Unit};
use serde_json::{Map, Value};
use std::cell::RefCell;

/// The findings of one reading.
#[derive(Default)]
pub struct Findings(RefCell<Vec<Finding>>);

impl Findings {
    /// Adds a finding.
    pub fn add(&self, path: &str, found: impl Into<String>, allowed: impl Into<String>) {
        self.0.borrow_mut().push(Finding {
            path: path.to_owned(),
            found: found.into(),
            allowed: allowed.into(),
        });
    }

    /// Whether nothing was found wrong so far.
    pub fn is_empty(&self) -> bool {
        self.0.borrow().is_empty()
    }

    /// The value read, if nothing was found wrong.
    ///
    /// # Errors
    /// All findings, when there are any. A reader that gave no value without a finding is a fault of the reader.
    pub fn finish<T>(self, value: Option<T>) -> Result<T, Invalid> {
        let findings = self.0.into_inner();
        match value {
            Some(value) if findings.is_empty() => Ok(value),
            _ => {
                debug_assert!(!findings.is_empty(), "a reader gave up without saying why");
                Err(Invalid { findings })
            }
        }
    }
}

/// A place in a JSON document.
#[derive(Clone)]
pub struct Node<'a> {
    /// The value there.
    pub value: &'a Value,
    /// Its JSON path.
    pub path: String,
    findings: &'a Findings,
}

/// What a JSON value is, in words for a message.
fn describe(value: &Value) -> String {
    match value {
        Value::Null => "null".to_owned(),
        Value::Array(items) => format!("a list of {}", items.len()),
        Value::Object(_) => "an object".to_owned(),
        Value::String(text) if text.chars().count() > 40 => {
            format!("“{}…”", text.chars().take(40).collect::<String>())
        }
        Value::String(text) => format!("“{text}”"),
        other => other.to_string(),
    }
}

impl<'a> Node<'a> {
    /// The top of a document.
    pub fn top(value: &'a Value, findings: &'a Findings) -> Node<'a> {
        Node {
            value,
            path: String::new(),
            findings,
        }
    }

    /// Notes a finding here.
    pub fn wrong(&self, allowed: impl Into<String>) {
        self.findings.add(&self.path, describe(self.value), allowed);
    }

    /// Notes a finding here in its own words.
    pub fn wrong_because(&self, found: impl Into<String>, allowed: impl Into<String>) {
        self.findings.add(&self.path, found, allowed);
    }

    /// The object here, or a finding.
    pub fn object(&self) -> Option<&'a Map<String, Value>> {
        let object = self.value.as_object();
        if object.is_none() {
            self.wrong("an object");
        }
        object
    }

    /// The field of that name, if it is there and not null.
    pub fn get(&self, name: &str) -> Option<Node<'a>> {
        let value = self.value.as_object()?.get(name).filter(|v| !v.is_null())?;
        Some(self.with(name, value))
    }

    /// A value that stands for a field of that name where there is none.
    pub fn with(&self, name: &str, value: &'a Value) -> Node<'a> {
        let path = if self.path.is_empty() {
            name.to_owned()
        } else {
            format!("{}.{name}", self.path)
        };
        Node {
            value,
            path,
            findings: self.findings,
        }
    }

    /// Another value that stands here in place of what was found.
    pub fn in_its_place<'b>(&'b self, value: &'b Value) -> Node<'b> {
        Node {
            value,
            path: self.path.clone(),
            findings: self.findings,
        }
    }

    /// The field of that name, or a finding that it is missing.
    pub fn need(&self, name: &str, allowed: &str) -> Option<Node<'a>> {
        let found = self.get(name);
        if found.is_none() && self.value.is_object() {
            let path = if self.path.is_empty() {
                name.to_owned()
            } else {
                format!("{}.{name}", self.path)
            };
            self.findings.add(&path, "nothing", allowed);
        }
        found
    }

    /// What a field of that name says, where it is there and not null.
    pub fn optional<T>(
        &self,
        name: &str,
        read: impl FnOnce(&Node<'a>) -> Option<T>,
    ) -> Option<Option<T>> {
        self.get(name).map_or(Some(None), |n| read(&n).map(Some))
    }

    /// Whether a field of that name says so; `usual` where it is left out.
    pub fn flag(&self, name: &str, usual: bool) -> Option<bool> {
        let Some(node) = self.get(name) else {
            return Some(usual);
        };
        let read = node.value.as_bool();
        if read.is_none() {
            node.wrong("true or false");
        }
        read
    }

    /// The items of the list here, or a finding and nothing.
    pub fn items(&self) -> Vec<Node<'a>> {
        let Some(items) = self.value.as_array() else {
            self.wrong("a list");
            return Vec::new();
        };
        let node = |(n, value)| Node {
            value,
            path: format!("{}[{n}]", self.path),
            findings: self.findings,
        };
        items.iter().enumerate().map(node).collect()
    }

    /// The items of the list here when there are no more than so many, or a finding.
    pub fn at_most(&self, most: usize) -> Option<Vec<Node<'a>>> {
        let items = self.value.as_array();
        if items.is_none_or(|i| i.len() > most) {
            self.wrong(if items.is_none() {
                "a list".to_owned()
            } else {
                format!("at most {most} entries")
            });
            return None;
        }
        Some(self.items())
    }

    /// Each item of the list here as it is read, when there are no more than so many. All are read before any failure counts, so that
    /// every finding is told at once.
    pub fn each<T>(&self, most: usize, read: impl FnMut(&Node<'a>) -> Option<T>) -> Option<Vec<T>> {
        let read: Vec<Option<T>> = self.at_most(most)?.iter().map(read).collect();
        read.into_iter().collect()
    }

    /// The texts of the list here, when there are no more than so many.
    pub fn texts(&self, most: usize) -> Option<Vec<String>> {
        self.each(most, |n| n.text().map(str::to_owned))
    }

    /// The text here, or a finding.
    pub fn text(&self) -> Option<&'a str> {
        let text = self.value.as_str();
        if text.is_none() {
            self.wrong("a text");
        }
        text
    }

    /// One of the named values, or a finding that lists them.
    pub fn one_of<T>(&self, names: &[&str], pick: impl Fn(&str) -> Option<T>) -> Option<T> {
        let picked = self.value.as_str().and_then(pick);
        if picked.is_none() {
            self.wrong(names.join(", "));
        }
        picked
    }

    /// A number between two bounds, or a finding.
    pub fn number(&self, least: f64, most: f64) -> Option<f64> {
        let number = self
            .value
            .as_f64()
            .filter(|n| n.is_finite() && (least..=most).contains(n));
        if number.is_none() {
            self.wrong(format!("a number from {least} to {most}"));
        }
        number
    }

    /// A whole number between two bounds, or a finding.
    pub fn count(&self, least: u32, most: u32) -> Option<u32> {
        let whole = |v: &Value| {
            v.as_u64().or_else(|| {
                v.as_f64()
                    .filter(|n| n.fract() == 0.0 && *n >= 0.0)
                    .map(|n| n as u64)
            })
        };
        let count = whole(self.value)
            .and_then(|n| u32::try_from(n).ok())
            .filter(|n| (least..=most).contains(n));
        if count.is_none() {
            self.wrong(format!("a whole number from {least} to {most}"));
        }
        count
    }

    /// A length in the document's unit between two bounds (both included), or a finding.
    pub fn length(&self, unit: Unit, least: Length, most: Length) -> Option<Length> {
        let length = self
            .value
            .as_f64()
            .and_then(|n| Length::from_units(n, unit))
            .filter(|l| (least..=most).contains(l));
        if length.is_none() {
            let least = if least.ticks() == 1 {
                "above 0".to_owned()
            } else {
                format!("from {}", least.to_text(unit))
            };
            self.wrong(format!(
                "a number of {} {least} to {}",
                unit.name(),
                most.to_text(unit)
            ));
        }
        length
    }
}
