//! Lengths as makers write them, by the table that the front end's twin is tested against too, and by properties.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::length::{Length, Unit};
use proptest::prelude::*;
use serde_json::Value;

fn cases(part: &str) -> Vec<Value> {
    let table: Value = serde_json::from_str(include_str!("lengths.json")).unwrap();
    table[part].as_array().unwrap().clone()
}

fn unit(case: &Value) -> Unit {
    Unit::from_name(case["unit"].as_str().unwrap()).unwrap()
}

#[test]
fn the_table_is_read() {
    let cases = cases("read");
    assert!(cases.len() > 30);
    for case in cases {
        let text = case["text"].as_str().unwrap();
        assert_eq!(
            Length::parse(text, unit(&case)).map(Length::ticks),
            Ok(case["ticks"].as_i64().unwrap()),
            "{text}"
        );
    }
}

#[test]
fn what_is_wrong_is_said() {
    let cases = cases("refused");
    assert!(cases.len() > 10);
    for case in cases {
        let text = case["text"].as_str().unwrap();
        let error = Length::parse(text, unit(&case)).unwrap_err().to_string();
        assert!(error.contains(case["says"].as_str().unwrap()), "{error}");
        assert!(
            error.contains(text) && error.contains("3 3/8"),
            "{error} says what was read and what is allowed"
        );
    }
}

#[test]
fn rulers_are_printed() {
    let cases = cases("ruler");
    assert!(cases.len() > 10);
    for case in cases {
        let length = Length::from_ticks(case["ticks"].as_i64().unwrap());
        let unit = unit(&case);
        let expected = format!("{} {}", case["text"].as_str().unwrap(), unit.name());
        assert_eq!(length.to_ruler_text(unit), expected);
    }
}

fn any_unit() -> impl Strategy<Value = Unit> {
    prop_oneof![Just(Unit::Inch), Just(Unit::Millimetre)]
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn printed_and_read_again_is_the_same(ticks in -800_000_000i64..=800_000_000, unit in any_unit(), other in any_unit()) {
        let length = Length::from_ticks(ticks);
        prop_assert_eq!(Length::parse(&length.to_text(unit), other), Ok(length));
    }

    #[test]
    fn written_as_a_fraction_and_as_a_decimal_is_the_same(whole in 0u32..200, top in 1u32..64) {
        let written = Length::parse(&format!("{whole} {top}/64"), Unit::Inch);
        let decimal = Length::parse(&format!("{} in", f64::from(whole) + f64::from(top) / 64.0), Unit::Millimetre);
        prop_assert_eq!(&written, &decimal);
        prop_assert_eq!(written.map(Length::ticks), Ok(i64::from(whole * 64 + top) * 3_175));
    }

    #[test]
    fn documents_keep_every_tick(ticks in -800_000_000i64..=800_000_000, unit in any_unit()) {
        let length = Length::from_ticks(ticks);
        prop_assert_eq!(Length::from_units(length.to_units(unit), unit), Some(length));
    }

    #[test]
    fn rounding_is_near_on_the_ruler_and_keeps_order(a in -1_000_000i64..1_000_000, b in -1_000_000i64..1_000_000, step in 1i64..50_000) {
        let (step, low, high) = (Length::from_ticks(step), Length::from_ticks(a.min(b)), Length::from_ticks(a.max(b)));
        let rounded = low.round_to(step);
        prop_assert!(rounded.is_on(step));
        prop_assert!((rounded - low).abs().ticks() * 2 <= step.ticks());
        prop_assert!(rounded <= high.round_to(step));
    }

    #[test]
    fn no_text_makes_it_fall_over(text in "\\PC{0,20}") {
        let _ = Length::parse(&text, Unit::Inch);
    }
}

#[test]
fn arithmetic_is_checked() {
    let most = Length::from_ticks(i64::MAX);
    assert_eq!(most.checked_add(Length::from_ticks(1)), None);
    assert_eq!(
        Length::from_ticks(i64::MIN).checked_sub(Length::from_ticks(1)),
        None
    );
    assert_eq!(most.checked_times(2), None);
    assert_eq!(
        Length::inches(1, 64).checked_times(64),
        Some(Length::inches(1, 1))
    );
    assert_eq!(Length::from_units(f64::NAN, Unit::Inch), None);
    assert_eq!(Length::from_units(1e9, Unit::Millimetre), None);
}
