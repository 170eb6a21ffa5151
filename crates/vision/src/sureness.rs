//! How sure a block is: the share of like blocks that were right among pictures the drawing machine drew.
//!
//! A logistic regression for each kind over what speaks for a block; `crates/drawn/train/sure.py` fits it and writes the weights.

use crate::judging::Evidence;
use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::LazyLock;

/// What counts for one kind: an offset, and a weight for each number of the evidence.
#[derive(Deserialize)]
struct Weights {
    offset: f64,
    weights: Vec<f64>,
}

static WEIGHTS: LazyLock<BTreeMap<String, Weights>> = LazyLock::new(|| {
    serde_json::from_str(include_str!("../weights/sure.json")).expect("the weights are JSON")
});

/// How likely a block of a kind with such evidence is right, 0 to 1.
pub(crate) fn sure(kind: &str, evidence: &Evidence) -> f64 {
    // The drawing machine draws no washes and no rings: of these the tracing's word counts.
    let Some(of) = WEIGHTS.get(kind) else {
        return evidence.traced;
    };
    let sum: f64 = of
        .weights
        .iter()
        .zip(evidence.numbers())
        .map(|(w, v)| w * v)
        .sum();
    1.0 / (1.0 + (-(of.offset + sum)).exp())
}
