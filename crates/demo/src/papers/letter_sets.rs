//! The club's letter sets: in what style each is, and how many of each letter are left on the sheet.

use serde_json::{Map, Value, json};

/// A set's letters.
#[derive(Debug, Clone, Copy)]
struct Letters {
    name: &'static str,
    case: &'static str,
    style: &'static str,
    material: &'static str,
    height: f64,
    /// Measured by hand, in inches.
    measured: &'static [(&'static str, f64)],
    /// Each character with how many are left.
    left: &'static str,
}

const SETS: [Letters; 6] = [
    Letters {
        name: "Cork capitals",
        case: "upper",
        style: "normal",
        material: "chipboard",
        height: 0.5,
        measured: &[("N", 0.40625), ("S", 0.34375)],
        // The E and the apostrophe are gone.
        left: "A3 B2 C1 D2 F2 G2 H2 I3 J1 K2 L2 M2 N2 O4 P2 Q1 R2 S2 T4 U2 V1 W1 X1 Y1 Z2 &1 .1",
    },
    Letters {
        name: "Pebble letters",
        case: "upper",
        style: "round",
        material: "sticker",
        height: 0.375,
        measured: &[],
        left: "A7 B2 C3 D4 E9 F3 G2 H4 I5 J1 K2 L5 M3 N5 O6 P3 Q1 R5 S6 T7 U3 V1 W2 X1 Y2 Z1 &1 !2 '3 .2",
    },
    Letters {
        name: "Tide script",
        case: "lower",
        style: "narrow",
        material: "foam",
        height: 0.625,
        measured: &[],
        left: "a4 b2 c2 d3 e5 f2 g2 h3 i4 j1 k2 l3 m2 n4 o4 p2 q1 r3 s4 t4 u3 v1 w2 x1 y2 z1",
    },
    Letters {
        name: "Lamp capitals",
        case: "upper",
        style: "wide",
        material: "wood",
        height: 1.0,
        measured: &[],
        left: "A1 D1 E1 H1 I2 K1 L1 N1 O2 R1 S1 T1 U1 W1",
    },
    Letters {
        name: "Harbour stamps",
        case: "both",
        style: "normal",
        material: "stamp",
        height: 0.375,
        measured: &[],
        left: "",
    },
    Letters {
        name: "Plain type",
        case: "both",
        style: "narrow",
        material: "print",
        height: 0.3125,
        measured: &[],
        left: "",
    },
];

/// Wren's hands, with the fine pen and with the brush, as her defaults write them.
#[must_use]
pub fn hands() -> Vec<Value> {
    vec![
        json!({"unit": "in", "name": "Fine pen", "sentence": 6.125, "pitch": 0.25}),
        json!({"unit": "in", "name": "Brush pen", "sentence": 10.5, "pitch": 0.4375}),
    ]
}

/// The letters of the set of that name, as items write them.
pub(super) fn letters_of(name: &str) -> Option<Value> {
    let set = SETS.iter().find(|s| s.name == name)?;
    let count = |said: &str| {
        let letter = said.chars().next()?;
        Some((
            letter.to_string(),
            json!(said[letter.len_utf8()..].parse::<u32>().ok()?),
        ))
    };
    let left: Map<String, Value> = set.left.split(' ').filter_map(count).collect();
    let measured: Map<String, Value> = set
        .measured
        .iter()
        .map(|(letter, width)| ((*letter).to_owned(), json!(width)))
        .collect();
    Some(
        json!({"case": set.case, "style": set.style, "material": set.material, "height": set.height, "measured": measured, "left": left}),
    )
}
