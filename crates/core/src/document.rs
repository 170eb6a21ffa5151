//! Reading documents: every finding at once, each with its JSON path, what was found and what is allowed.

mod walker;

pub use walker::{Findings, Node};

use crate::length::Unit;
use serde_json::Value;
use std::fmt;

/// One thing in a document that breaks a rule of the format.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Finding {
    /// Where, as a JSON path from the document's top: `blocks[2].box.w`; empty for the document itself.
    pub path: String,
    /// What was found there.
    pub found: String,
    /// What is allowed there.
    pub allowed: String,
}

impl fmt::Display for Finding {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let place = if self.path.is_empty() {
            "the document"
        } else {
            &self.path
        };
        write!(
            f,
            "{place}: found {}; allowed is {}",
            self.found, self.allowed
        )
    }
}

/// A document that breaks the format, with all that was found in it.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub struct Invalid {
    /// At least one finding, in the document's order.
    pub findings: Vec<Finding>,
}

impl Invalid {
    /// A single finding about a document.
    pub fn one(path: &str, found: impl Into<String>, allowed: impl Into<String>) -> Invalid {
        Invalid {
            findings: vec![Finding {
                path: path.to_owned(),
                found: found.into(),
                allowed: allowed.into(),
            }],
        }
    }

    /// Findings of a part of a document, told from the document's top.
    #[must_use]
    pub fn under(mut self, prefix: &str) -> Invalid {
        for finding in &mut self.findings {
            let path = format!("{prefix}.{}", finding.path);
            path.trim_end_matches('.').clone_into(&mut finding.path);
        }
        self
    }
}

impl fmt::Display for Invalid {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        for (n, finding) in self.findings.iter().enumerate() {
            write!(f, "{}{finding}", if n > 0 { " · " } else { "" })?;
        }
        Ok(())
    }
}

/// Reads JSON text; a text that is not JSON is a finding with its line and column.
///
/// # Errors
/// When the text is not JSON.
pub fn parse_json(text: &str) -> Result<Value, Invalid> {
    serde_json::from_str(text).map_err(|e| {
        Invalid::one(
            "",
            format!("text that is not JSON ({e})"),
            "one JSON document",
        )
    })
}

/// A decimal number as documents write it: whole numbers without a decimal point.
pub fn number(value: f64) -> Value {
    if value.fract() == 0.0 && value.abs() < 1e15 {
        Value::from(value as i64)
    } else {
        Value::from(value)
    }
}

/// A length as a decimal number of a unit.
pub fn length_number(length: crate::length::Length, unit: Unit) -> Value {
    number(length.to_units(unit))
}
