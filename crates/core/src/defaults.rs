//! What a maker starts every page with.

use crate::document::{Findings, Invalid, Node, length_number};
use crate::handwriting::Hand;
use crate::length::{Length, Unit};
use serde_json::{Value, json};
use std::collections::BTreeSet;

/// The most that a margin, a fold guard or a border may be.
const MOST: Length = Length::inches(3, 1);
const MOST_HANDS: usize = 12;
const MOST_CHECKS: usize = 60;

/// A maker's own unit, ruler step, margin, fold guard, mat border, light or dark and letter keys; what she leaves open is what most
/// makers work by (1/4 in and 1/8 in; 6 mm, 3 mm and 1 mm).
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Defaults {
    /// In which she measures; the sketch's own where she has not said.
    pub unit: Option<Unit>,
    /// To which cut sizes are rounded; zero for none.
    pub step: Option<Length>,
    /// Along the page's edges.
    pub margin: Option<Length>,
    /// Either side of the fold.
    pub fold_guard: Option<Length>,
    /// Around a matted photo.
    pub border: Option<Length>,
    /// `light`, `dark`, or as the machine is set.
    pub theme: Option<String>,
    /// `off` where single letters and digits do nothing on the page.
    pub letter_keys: Option<String>,
    /// Her hands: how wide she writes with which pen.
    pub hands: Vec<Hand>,
    /// Checks of a page that she never wants, by name.
    pub checks_off: BTreeSet<String>,
}

impl Defaults {
    /// The themes that documents name.
    pub const THEMES: [&'static str; 3] = ["system", "light", "dark"];
    /// Whether single letters and digits do anything, as documents name it.
    pub const LETTER_KEYS: [&'static str; 2] = ["on", "off"];

    /// Reads them; lengths are in the unit given, inches where none is.
    ///
    /// # Errors
    /// All that can't be meant, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Defaults, Invalid> {
        let findings = Findings::default();
        let top = Node::top(value, &findings);
        let read = || {
            top.object()?;
            let unit = match top.get("unit") {
                Some(node) => Some(node.one_of(&["in", "mm"], Unit::from_name)?),
                None => None,
            };
            // None of its own is fine; one that can't be read is a finding.
            let length = |name: &str| match top.get(name) {
                Some(node) => node
                    .length(unit.unwrap_or_default(), Length::ZERO, MOST)
                    .map(Some),
                None => Some(None),
            };
            let (step, margin, fold_guard, border) = (
                length("step"),
                length("margin"),
                length("fold_guard"),
                length("border"),
            );
            let named = |field: &str, names: &[&'static str]| match top.get(field) {
                Some(node) => node
                    .one_of(names, |n| names.contains(&n).then(|| n.to_owned()))
                    .map(Some),
                None => Some(None),
            };
            let theme = named("theme", &Defaults::THEMES);
            let letter_keys = named("letter_keys", &Defaults::LETTER_KEYS);
            let hands = top
                .get("hands")
                .map_or(Some(Vec::new()), |n| n.each(MOST_HANDS, Hand::read));
            let checks_off = top
                .get("checks_off")
                .map_or(Some(Vec::new()), |n| n.texts(MOST_CHECKS));
            Some(Defaults {
                unit,
                step: step?,
                margin: margin?,
                fold_guard: fold_guard?,
                border: border?,
                theme: theme?,
                letter_keys: letter_keys?,
                hands: hands?,
                checks_off: checks_off?.into_iter().collect(),
            })
        };
        let found = read();
        findings.finish(found)
    }

    /// Writes what she has said.
    pub fn to_json(&self) -> Value {
        let unit = self.unit.unwrap_or_default();
        let mut written = json!({});
        if let Some(unit) = self.unit {
            written["unit"] = unit.name().into();
        }
        for (name, length) in [
            ("step", self.step),
            ("margin", self.margin),
            ("fold_guard", self.fold_guard),
            ("border", self.border),
        ] {
            if let Some(length) = length {
                written[name] = length_number(length, unit);
            }
        }
        if !self.checks_off.is_empty() {
            written["checks_off"] = json!(self.checks_off);
        }
        if !self.hands.is_empty() {
            written["hands"] = self.hands.iter().map(Hand::to_json).collect();
        }
        for (name, said) in [("theme", &self.theme), ("letter_keys", &self.letter_keys)] {
            if let Some(said) = said {
                written[name] = said.as_str().into();
            }
        }
        written
    }

    /// The ruler step for a page in a unit. A step of the other unit is no step of this one's ruler.
    pub fn step_in(&self, unit: Unit) -> Length {
        let usual = match unit {
            Unit::Inch => Length::inches(1, 8),
            Unit::Millimetre => Length::from_ticks(8_000),
        };
        self.step
            .filter(|_| self.unit.unwrap_or_default() == unit)
            .unwrap_or(usual)
    }

    /// The margin for a page in a unit.
    pub fn margin_in(&self, unit: Unit) -> Length {
        self.own_or(self.margin, unit, Length::inches(1, 4), 48_000)
    }

    /// The fold guard for a spread in a unit.
    pub fn fold_guard_in(&self, unit: Unit) -> Length {
        self.own_or(self.fold_guard, unit, Length::inches(1, 4), 48_000)
    }

    /// The visible border of a mat in a unit.
    pub fn border_in(&self, unit: Unit) -> Length {
        self.own_or(self.border, unit, Length::inches(1, 8), 24_000)
    }

    /// Her own length, on the ruler of the unit; or the usual one.
    fn own_or(
        &self,
        own: Option<Length>,
        unit: Unit,
        inches: Length,
        millimetre_ticks: i64,
    ) -> Length {
        let usual = match unit {
            Unit::Inch => inches,
            Unit::Millimetre => Length::from_ticks(millimetre_ticks),
        };
        match own {
            Some(own) if self.unit.unwrap_or_default() == unit => own,
            Some(own) => own.round_to(self.step_in(unit)),
            None => usual,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_said_is_written_again() {
        let said = json!({"unit": "mm", "step": 0.5, "margin": 8, "border": 3, "theme": "dark", "letter_keys": "off"});
        let read = Defaults::from_json(&said).expect("all of it can be meant");
        assert_eq!(read.to_json(), said);
        assert_eq!(read.step_in(Unit::Millimetre).ticks(), 4_000);
        assert_eq!(
            read.step_in(Unit::Inch),
            Length::inches(1, 8),
            "half a millimetre is on no inch ruler"
        );
        assert_eq!(read.fold_guard_in(Unit::Millimetre).ticks(), 48_000);
        assert_eq!(read.border_in(Unit::Inch), Length::inches(1, 8));
    }

    #[test]
    fn what_cannot_be_meant_is_found() {
        let wrong = json!({"unit": "ell", "theme": "pink"});
        let found = Defaults::from_json(&wrong).expect_err("an ell").findings;
        assert_eq!(found[0].path, "unit");
        let wrong = json!({"margin": -1, "step": "wide"});
        let paths: Vec<String> = Defaults::from_json(&wrong)
            .expect_err("two")
            .findings
            .into_iter()
            .map(|f| f.path)
            .collect();
        assert_eq!(paths, ["step", "margin"]);
        let wrong = json!({"theme": "pink", "letter_keys": "sometimes"});
        let found = Defaults::from_json(&wrong).expect_err("two").findings;
        assert_eq!(
            found.iter().map(|f| f.path.as_str()).collect::<Vec<_>>(),
            ["theme", "letter_keys"]
        );
    }

    #[test]
    fn nothing_said_is_what_most_makers_work_by() {
        let usual = Defaults::from_json(&json!({})).expect("nothing said");
        assert_eq!(usual, Defaults::default());
        assert_eq!(usual.margin_in(Unit::Inch), Length::inches(1, 4));
        assert_eq!(usual.to_json(), json!({}));
    }
}
