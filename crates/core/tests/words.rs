//! Words in letters: what is proposed keeps every rule, spends nothing twice, and what can't be set says why.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::length::Length;
use metrosk_core::words::{Needs, Proposal, Worded, Words};
use proptest::prelude::*;
use serde_json::{Value, json};
use std::collections::BTreeMap;

fn letter(w: f64, quantity: u32) -> Value {
    json!({"w": w, "h": 1, "qty": quantity})
}

fn request(text: &str, space: (f64, f64), sets: &Value, makes: &Value) -> Value {
    json!({"format": "metrosk-words/1", "unit": "in", "text": text, "space": {"w": space.0, "h": space.1},
        "lines": "any", "align": "left", "sets": sets, "makes": makes,
        "gap": {"least": 0.0625, "best": 0.125, "most": 0.375},
        "word_gap": {"least": 0.25, "best": 0.5, "most": 1}, "line_gap": {"least": 0.125, "best": 0.25, "most": 0.5}})
}

fn words(value: &Value) -> Words {
    Words::from_json(value).unwrap()
}

fn inches(n: f64) -> Length {
    Length::from_units(n, metrosk_core::length::Unit::Inch).unwrap()
}

fn proposals(worded: Worded) -> Vec<Proposal> {
    match worded {
        Worded::Set(proposals) => proposals,
        other => panic!("it can be set: {other:?}"),
    }
}

/// Cork has one I and two J, of which an I can be made.
fn cork() -> Value {
    json!([{"id": "cork", "case": "upper", "letters": {"I": letter(0.25, 1), "J": letter(0.5, 2), "T": letter(0.625, 2), "S": letter(0.5, 1)}}])
}

fn an_i_of_a_j() -> Value {
    json!([{"set": "cork", "letter": "I", "of": "J", "w": 0.25, "h": 0.875, "cost": 2}])
}

#[test]
fn a_letter_that_lacks_is_made_of_another_and_stands_on_the_baseline() {
    let asked = words(&request("It is", (4.0, 3.0), &cork(), &an_i_of_a_j()));
    let best = proposals(asked.worded()).remove(0);
    assert_eq!((best.cost, best.badness), (2.0, 0.0));
    let made: Vec<_> = best
        .lines
        .iter()
        .flat_map(|l| l.words.iter().flatten())
        .filter(|l| l.of == 'J')
        .collect();
    assert_eq!(made.len(), 1);
    assert_eq!((made[0].letter, made[0].rect.h), ('I', inches(0.875)));
    assert_eq!(made[0].rect.bottom(), best.lines[0].baseline);
    assert_eq!(
        best.leaves["cork"],
        BTreeMap::from([('I', 0), ('J', 1), ('S', 0), ('T', 1)])
    );
}

#[test]
fn too_long_for_one_line_it_goes_onto_two() {
    let asked = words(&request("It is", (1.2, 3.0), &cork(), &an_i_of_a_j()));
    let best = proposals(asked.worded()).remove(0);
    assert_eq!(best.lines.len(), 2);
    assert_eq!(best.line_gap, inches(0.25));
}

#[test]
fn what_lacks_is_told_by_letter() {
    let asked = words(&request("Sits still", (9.0, 9.0), &cork(), &json!([])));
    let answer = asked.worded().to_json(&asked);
    assert_eq!(answer["proposals"], json!([]));
    assert_eq!(
        answer["why"]["short"],
        json!({"cork": {"I": 1, "L": 2, "S": 2}})
    );
    assert_eq!(
        answer["why"]["text"],
        "There are not enough letters: cork lacks 1 I, 2 L, 2 S."
    );
}

#[test]
fn a_space_that_is_too_small_tells_how_large_it_would_have_to_be() {
    let narrow = words(&request("It", (0.75, 2.0), &cork(), &json!([])));
    let w = inches(0.25 + 0.0625 + 0.625);
    let needs = |w, h| Worded::TooSmall(Needs { w, h });
    assert_eq!(narrow.worded(), needs(w, inches(1.0)));
    let low = words(&request("It", (5.0, 0.75), &cork(), &json!([])));
    assert_eq!(low.worded(), needs(w, inches(1.0)));
}

#[test]
fn each_word_stays_on_one_line() {
    let mut asked = request("It is", (9.0, 9.0), &cork(), &an_i_of_a_j());
    asked["lines"] = json!(3);
    assert_eq!(words(&asked).worded(), Worded::TooManyLines { words: 2 });
}

#[test]
fn what_is_wrong_is_told_by_place() {
    let wrong = |change: fn(&mut Value)| {
        let mut asked = request("It", (9.0, 9.0), &cork(), &an_i_of_a_j());
        change(&mut asked);
        Words::from_json(&asked).unwrap_err().to_string()
    };
    let told = [
        wrong(|q| q["text"] = json!("  ")),
        wrong(|q| q["lines"] = json!(0)),
        wrong(|q| q["gap"]["best"] = json!(0.01)),
        wrong(|q| q["makes"][0]["set"] = json!("tin")),
        wrong(|q| q["sets"][0]["letters"]["I"]["qty"] = json!(-1)),
        wrong(|q| q["sets"] = json!([q["sets"][0], q["sets"][0]])),
        wrong(|q| q["sets"][0]["letters"]["IJ"] = letter(1.0, 1)),
    ];
    let places = [
        "text",
        "lines",
        "gap",
        "makes[0].set",
        "sets[0].letters.I.qty",
        "sets[1]",
        "sets[0].letters.IJ",
    ];
    for (told, place) in told.iter().zip(places) {
        assert!(told.starts_with(place), "{told}");
    }
}

fn any_request() -> impl Strategy<Value = Value> {
    let sizes = prop::collection::vec((3_u32..9, 2_u32..5, 0_u32..4), 6);
    let set = (0_usize..3, sizes).prop_map(|(case, sizes)| {
        let letters: serde_json::Map<String, Value> = sizes
            .iter()
            .zip("aeinst".chars())
            .map(|((w, h, quantity), c)| {
                let c = if case == 0 { c.to_ascii_uppercase() } else { c };
                let size = json!({"w": f64::from(*w) / 8.0, "h": f64::from(*h) / 4.0, "below": f64::from(*w % 2) / 8.0, "qty": quantity});
                (c.to_string(), size)
            })
            .collect();
        let name = ["upper", "lower", "both"][case];
        json!({"case": name, "letters": letters})
    });
    let text = prop::collection::vec("[aeinst]{1,3}", 1..4).prop_map(|words| words.join(" "));
    let makes = prop::collection::vec((0_usize..6, 0_usize..6, 0_u32..3), 0..4);
    let space = (2_u32..40, 3_u32..24);
    (prop::collection::vec(set, 1..3), text, makes, space).prop_map(|(mut sets, text, makes, (w, h))| {
        for (n, set) in sets.iter_mut().enumerate() {
            set["id"] = json!(format!("set {n}"));
        }
        let small = sets[0]["case"] != "upper";
        let of = |n: usize| {
            let c = "aeinst".chars().nth(n).unwrap();
            if small { c.to_string() } else { c.to_ascii_uppercase().to_string() }
        };
        let makes: Vec<Value> = makes
            .iter()
            .filter(|(a, b, _)| a != b)
            .map(|(a, b, cost)| json!({"set": "set 0", "letter": of(*a), "of": of(*b), "w": 0.5, "h": 0.75, "cost": cost}))
            .collect();
        request(&text, (f64::from(w) / 4.0, f64::from(h) / 4.0), &json!(sets), &json!(makes))
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    #[test]
    fn nothing_is_spent_twice_and_all_lies_in_its_space(asked in any_request()) {
        let asked = words(&asked);
        let Worded::Set(proposals) = asked.worded() else { return Ok(()) };
        prop_assert!(!proposals.is_empty());
        let worth = |p: &Proposal| (p.cost, (p.badness * 1e6).round(), p.lines.len());
        for pair in proposals.windows(2) {
            prop_assert!(worth(&pair[0]) <= worth(&pair[1]), "best first");
        }
        for proposal in &proposals {
            let mut used: BTreeMap<(&str, char), u32> = BTreeMap::new();
            let mut last: Option<Length> = None;
            for line in &proposal.lines {
                let all: Vec<_> = line.words.iter().flatten().collect();
                for letter in &all {
                    *used.entry((&line.set, letter.of)).or_default() += 1;
                    let rect = letter.rect;
                    prop_assert!(rect.x >= Length::ZERO && rect.right() <= asked.space.w, "{rect:?}");
                    prop_assert!(rect.y >= Length::ZERO && rect.bottom() <= asked.space.h, "{rect:?}");
                }
                for word in &line.words {
                    for pair in word.windows(2) {
                        prop_assert_eq!(pair[1].rect.x - pair[0].rect.right(), line.gap);
                    }
                }
                for pair in line.words.windows(2) {
                    prop_assert_eq!(pair[1][0].rect.x - pair[0].last().unwrap().rect.right(), line.word_gap);
                }
                let top = all.iter().map(|l| l.rect.y).min().unwrap();
                if let Some(lowest) = last {
                    prop_assert_eq!(top - lowest, proposal.line_gap);
                }
                last = all.iter().map(|l| l.rect.bottom()).max();
            }
            for ((set, piece), count) in used {
                let had = asked.sets.iter().find(|s| s.id == set).unwrap().letters[&piece].quantity;
                prop_assert_eq!(proposal.leaves[set][&piece] + count, had);
            }
        }
    }
}
