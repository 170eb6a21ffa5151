//! A page's title in the letters of the stash, and its writing in a maker's hand.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_core::geometry::Size;
use metrosk_core::handwriting::{Hand, SENTENCE};
use metrosk_core::layout::Layout;
use metrosk_core::length::{Length, Unit};
use metrosk_core::letters::{Doing, KeptLetters, Style, WAYS};
use metrosk_core::stash::Item;
use metrosk_core::words::{
    Asked, Manner, PlaceKind, Remedy, SetInStash, Shape, Title, Uses, Worded, WordsDecisions,
    places,
};
use proptest::prelude::*;
use serde_json::{Value, json};
use std::collections::BTreeMap;

fn inches(n: f64) -> Length {
    Length::from_ticks((n * 203_200.0).round() as i64)
}

fn kept(letters: Value) -> KeptLetters {
    let item = json!({"unit": "in", "kind": "letters", "name": "Cork", "letters": letters});
    let item = Item::from_json(&item).unwrap();
    assert_eq!(Item::from_json(&item.to_json()).unwrap(), item);
    item.letters.unwrap()
}

/// Cork capitals without an E and with two N; two Z.
fn cork() -> SetInStash {
    let left = json!({"A": 3, "B": 1, "D": 2, "F": 2, "I": 3, "L": 2, "N": 2, "O": 4, "S": 2, "T": 4, "U": 2, "W": 1, "Z": 2});
    SetInStash {
        id: "cork".to_owned(),
        name: "Cork".to_owned(),
        kept: kept(json!({"case": "upper", "height": 0.75, "left": left})),
        taken: BTreeMap::new(),
    }
}

fn title(text: &str) -> Title {
    let words = json!({"title": {"text": text}});
    let read = WordsDecisions::from_json(&words, Unit::Inch).unwrap();
    read.title.unwrap()
}

fn space(w: f64, h: f64) -> Size {
    Size {
        w: inches(w),
        h: inches(h),
    }
}

#[test]
fn what_lacks_is_made_out_of_what_is_left_and_is_spent() {
    let sets = [cork()];
    let title = title("Sun and wind");
    let settings = title
        .settings(&title.text, space(9.0, 1.0), Unit::Inch, &sets)
        .unwrap();
    let written = settings.to_json(&title);
    let first = &written["proposals"][0];
    assert_eq!(
        first["made"],
        json!(["N out of Z, a quarter turn"]),
        "{written}"
    );
    assert_eq!(first["uses"]["cork"]["Z"], 1);
    assert_eq!(first["uses"]["cork"]["N"], 2);
    assert_eq!(first["last"], json!(["D, N and W of Cork"]));
    // The quarter turn makes it as wide as a Z is high.
    let letters = first["lines"][0]["letters"].as_array().unwrap();
    let turned = letters.iter().find(|l| l["of"] == "Z").unwrap();
    assert_eq!(turned["box"]["w"], 0.75);
    assert_eq!(
        first["lines"][0]["order"].as_array().unwrap()[..3],
        [json!(0), json!(9), json!(4)]
    );
}

#[test]
fn what_another_page_spends_is_not_there() {
    let mut sets = [cork()];
    sets[0].taken = BTreeMap::from([('Z', 2)]);
    let title = title("Sun and wind");
    let settings = title
        .settings(&title.text, space(9.0, 1.0), Unit::Inch, &sets)
        .unwrap();
    let told = settings.in_short();
    assert_eq!(told["fits"], false);
    assert_eq!(
        told["text"],
        "There are not enough letters: Cork lacks one N."
    );
}

#[test]
fn letters_that_never_run_out_set_any_text() {
    let stamps = SetInStash {
        kept: kept(json!({"case": "both", "material": "stamp", "height": 0.375})),
        ..cork()
    };
    let title = title("Wren’s tea & sand, at ½ past two");
    let sets = [stamps];
    let settings = title
        .settings(&title.text, space(12.0, 2.0), Unit::Inch, &sets)
        .unwrap();
    assert!(matches!(&settings.worded, Worded::Set(all) if !all.is_empty()));
}

#[test]
fn measured_letters_widen_the_whole_set() {
    let plain = kept(json!({"case": "upper", "height": 1.0}));
    let wide = kept(
        json!({"case": "upper", "height": 1.0, "measured": {"N": plain.glyph('N').w.to_units(Unit::Inch) * 1.25}}),
    );
    assert_eq!(
        wide.glyph('N').w,
        inches(plain.glyph('N').w.to_units(Unit::Inch) * 1.25)
    );
    let ratio = wide.glyph('O').w.ticks() as f64 / plain.glyph('O').w.ticks() as f64;
    assert!((ratio - 1.25).abs() < 0.03, "{ratio}");
    assert!(
        kept(json!({"case": "upper", "style": "narrow", "height": 1.0}))
            .glyph('O')
            .w
            < plain.glyph('O').w
    );
    assert!(Style::from_name("gothic").is_none());
}

#[test]
fn every_usual_way_takes_a_letter_for_another() {
    for way in WAYS {
        assert_ne!(way.letter, way.of);
        let cost = way.doing.cost();
        assert!(cost >= Doing::HalfTurn.cost(), "{way:?}");
    }
    // d stood on its head is a p: it hangs below the line.
    let both = kept(json!({"case": "lower", "height": 1.0, "left": {"d": 1}}));
    let made = both.makes("x", "p", &BTreeMap::new());
    assert_eq!(made.len(), 1);
    assert!(made[0].make.glyph.below > Length::ZERO);
}

#[test]
fn wrong_letters_and_words_are_refused_with_their_path() {
    for (letters, path) in [
        (json!({"case": "upper", "height": 0}), "letters.height"),
        (json!({"case": "middle", "height": 1}), "letters.case"),
        (
            json!({"case": "upper", "height": 1, "left": {"A": -1}}),
            "letters.left.A",
        ),
        (
            json!({"case": "upper", "height": 1, "left": {"AB": 1}}),
            "letters.left.AB",
        ),
        (
            json!({"case": "upper", "height": 1, "measured": {"A": 0}}),
            "letters.measured.A",
        ),
        (
            json!({"case": "upper", "height": 1, "ways": [{"letter": "A", "of": "", "how": "x"}]}),
            "letters.ways[0].of",
        ),
    ] {
        let item = json!({"unit": "in", "kind": "letters", "name": "Cork", "letters": letters});
        let error = Item::from_json(&item).expect_err(path);
        assert!(
            error.findings.iter().any(|f| f.path == path),
            "{path}: {error}"
        );
    }
    for (words, path) in [
        (json!({"title": {"text": "x".repeat(401)}}), "title.text"),
        (json!({"title": {"text": "x", "lines": 0}}), "title.lines"),
        (
            json!({"title": {"text": "x", "space": {"w": 0, "h": 1}}}),
            "title.space.w",
        ),
        (
            json!({"title": {"text": "x", "uses": {"a": {"A": -1}}}}),
            "title.uses.a.A",
        ),
        (
            json!({"writing": {"text": "word ".repeat(100_000)}}),
            "writing.text",
        ),
        (
            json!({"writing": {"hand": {"name": "", "sentence": 6, "pitch": 0.25}}}),
            "writing.hand.name",
        ),
    ] {
        let error = WordsDecisions::from_json(&words, Unit::Inch).expect_err(path);
        assert!(
            error.findings.iter().any(|f| f.path == path),
            "{path}: {error}"
        );
    }
}

fn hand() -> Hand {
    let me = json!({"hands": [{"name": "Fine pen", "sentence": 6.5, "pitch": 0.25}]});
    let read = metrosk_core::plan::Defaults::from_json(&me).unwrap();
    assert_eq!(
        metrosk_core::plan::Defaults::from_json(&read.to_json()).unwrap(),
        read
    );
    read.hands[0].clone()
}

fn asked<'a>(text: &'a str, hand: &'a Hand, kept: &str, size: Size) -> Asked<'a> {
    Asked {
        text,
        kept: kept.to_owned(),
        space: size,
        hand,
        pitch: hand.pitch,
        shape: Shape::Lines,
    }
}

#[test]
fn writing_that_is_two_lines_over_is_made_to_fit_and_the_date_is_kept() {
    let hand = hand();
    // The sentence takes a line of its own at 7 in.
    let text = [SENTENCE; 6].join("\n");
    let here = asked(&text, &hand, "Saturday", space(7.0, 1.25));
    let now = here.written();
    assert_eq!(
        (now.lines.len(), now.room, now.kept, now.lines_over()),
        (6, 5, 1, 2)
    );
    assert_eq!(now.words_over(), 2 * SENTENCE.split(' ').count());
    let remedies = here.remedies();
    assert!(
        remedies.contains(&Remedy::Taller(inches(1.75))),
        "{remedies:?}"
    );
    let pitch = remedies.iter().find_map(|r| {
        if let Remedy::Pitch(p) = r {
            Some(*p)
        } else {
            None
        }
    });
    let smaller = Asked {
        pitch: pitch.unwrap(),
        ..here.clone()
    };
    assert!(smaller.written().fits());
    assert!(!remedies.contains(&Remedy::DateElsewhere));
}

#[test]
fn a_word_wider_than_its_space_is_named() {
    let hand = hand();
    let here = asked(
        "a honourificabilitudinitatibus end",
        &hand,
        "",
        space(0.5, 3.0),
    );
    let now = here.written();
    assert_eq!(now.too_wide, ["honourificabilitudinitatibus"]);
    assert!(!now.fits());
}

/// Uses never pass what is there.
fn within_stock(uses: &Uses, sets: &[SetInStash]) -> bool {
    uses.iter().all(|(id, letters)| {
        let set = sets.iter().find(|s| s.id == *id).unwrap();
        letters
            .iter()
            .all(|(c, n)| *n <= set.kept.left_of(*c, &set.taken))
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn no_letter_is_spent_twice_and_all_lie_within_the_space(text in "[ABDFILNOSTUW]{1,6}( [ABDFILNOSTUW]{1,5}){0,2}", w in 3.0..12.0f64) {
        let sets = [cork()];
        let title = title(&text);
        let size = space(w, 3.0);
        let settings = title.settings(&text, size, Unit::Inch, &sets).unwrap();
        if let Worded::Set(proposals) = &settings.worded {
            for proposal in proposals {
                prop_assert!(within_stock(&proposal.uses(), &sets));
                for letter in proposal.lines.iter().flat_map(|l| l.words.iter().flatten()) {
                    prop_assert!(letter.rect.x >= Length::ZERO && letter.rect.right() <= size.w);
                    prop_assert!(letter.rect.y >= Length::ZERO && letter.rect.bottom() <= size.h);
                }
            }
        }
    }

    #[test]
    fn lines_hold_every_word_once_and_none_is_too_wide(words in prop::collection::vec("[a-z]{1,9}", 1..60), w in 2.0..8.0f64) {
        let hand = hand();
        let text = words.join(" ");
        let here = asked(&text, &hand, "", space(w, 2.0));
        let now = here.written();
        prop_assert_eq!(now.lines.join(" "), text);
        prop_assert!(now.widths.iter().all(|l| *l <= inches(w)));
    }
}

fn letters_of(set: &str, name: &str, letters: Value) -> SetInStash {
    SetInStash {
        id: set.to_owned(),
        name: name.to_owned(),
        kept: kept(letters),
        taken: BTreeMap::new(),
    }
}

/// Stickers in both cases, enough for most titles, and capitals that run short.
fn two_sets(left: u32) -> [SetInStash; 2] {
    let both: BTreeMap<String, u32> = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ"
        .chars()
        .map(|c| (c.to_string(), 6))
        .collect();
    let upper: BTreeMap<String, u32> = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
        .chars()
        .map(|c| (c.to_string(), left))
        .collect();
    [
        letters_of(
            "reed",
            "Reed",
            json!({"case": "both", "height": 0.5, "left": both}),
        ),
        letters_of(
            "cork",
            "Cork",
            json!({"case": "upper", "height": 0.75, "left": upper}),
        ),
    ]
}

fn ways(text: &str, room: Size, sets: &[SetInStash]) -> Vec<metrosk_core::words::Proposal> {
    let title = title(text);
    let settings = title.settings(&title.text, room, Unit::Inch, sets);
    settings.map_or(Vec::new(), |s| s.ways)
}

#[test]
fn a_title_runs_along_an_arc_upright_staggered_and_round_a_corner() {
    let sets = two_sets(4);
    let wide = ways("Sun and wind", space(9.0, 2.5), &sets);
    let first = |all: &[metrosk_core::words::Proposal], manner| {
        all.iter().find(|p| p.manner == manner).cloned()
    };
    let arc = first(&wide, Manner::Arc).expect("there is room to rise");
    let turns: Vec<f64> = arc.letters().map(|l| l.turn).collect();
    assert!(turns.is_sorted_by(|a, b| a < b), "{turns:?}");
    assert!(
        (turns[0] + turns[turns.len() - 1]).abs() < 4.0,
        "even about its middle: {turns:?}"
    );
    let staggered = first(&wide, Manner::Staggered).unwrap();
    let line = &staggered.lines[0].words.concat();
    assert_eq!(
        line[1].rect.bottom() - line[0].rect.bottom(),
        inches(0.1875)
    );
    let mixed = first(&wide, Manner::Mixed).unwrap();
    assert_eq!(mixed.lines.len(), 2);
    assert_eq!(mixed.lines[0].baseline, mixed.lines[1].baseline);
    assert_ne!(mixed.lines[0].set, mixed.lines[1].set);
    assert!(
        first(&wide, Manner::Overlapped).is_none(),
        "it has room without"
    );

    let narrow = ways("Kites", space(1.0, 8.0), &sets);
    let standing = first(&narrow, Manner::Standing).unwrap();
    let column = &standing.lines[0].words[0];
    assert!(column.is_sorted_by(|a, b| a.rect.bottom() <= b.rect.y));
    assert!(column.iter().all(|l| l.turn == 0.0));
    let turned = first(&narrow, Manner::Turned).unwrap();
    assert!(turned.letters().all(|l| l.turn == -90.0));
    let middles: Vec<Length> = turned
        .letters()
        .map(|l| l.rect.y + Length::from_ticks(l.rect.h.ticks() / 2))
        .collect();
    assert!(middles.is_sorted_by(|a, b| a > b), "it reads upwards");

    let corner = ways("Sun and wind over the flats", space(6.0, 7.0), &sets);
    let corner = first(&corner, Manner::RoundCorner).unwrap();
    assert!(
        corner.lines[1]
            .words
            .iter()
            .flatten()
            .all(|l| l.turn == 90.0)
    );

    let short = ways("windward", space(2.2, 0.8), &sets);
    let tiles = first(&short, Manner::Overlapped).expect("too long without");
    assert!(tiles.lines[0].gap < Length::ZERO);
    let spread = ways("sun wind", space(5.0, 2.0), &sets);
    assert!(first(&spread, Manner::Spread).is_some());
}

/// By how much letters that are next to each other may overlap for rounding: a thousandth of an inch.
const ROUNDED: f64 = 203.0;

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]
    #[test]
    fn in_every_manner_letters_stay_in_their_space_gaps_are_even_and_none_is_spent_twice(
        words in prop::collection::vec("[a-z]{1,6}", 1..5), w in 1.0..10.0f64, h in 0.6..6.0f64, left in 1..4u32,
    ) {
        let sets = two_sets(left);
        let room = space(w, h);
        let text = words.join(" ");
        for way in ways(&text, room, &sets) {
            for corner in way.letters().flat_map(|l| l.corners()) {
                prop_assert!((-ROUNDED..=room.w.ticks() as f64 + ROUNDED).contains(&corner.0), "{:?} {corner:?} {room:?}", way.manner);
                prop_assert!((-ROUNDED..=room.h.ticks() as f64 + ROUNDED).contains(&corner.1), "{:?} {corner:?} {room:?}", way.manner);
            }
            let said: String = way.lines.iter().flat_map(|l| &l.words).map(|w| w.iter().map(|l| l.letter).collect::<String>()).collect::<Vec<_>>().join(" ");
            prop_assert_eq!(said.to_lowercase(), text.clone(), "{:?}", way.manner);
            for (set, letters) in way.uses() {
                let kept = &sets.iter().find(|s| s.id == set).unwrap().kept;
                for (letter, used) in letters {
                    let had = kept.left_of(letter, &BTreeMap::new());
                    prop_assert!(used <= had, "{:?}: {used} {letter} of {had}", way.manner);
                    prop_assert_eq!(way.leaves[&set][&letter] + used, had, "{:?}", way.manner);
                }
            }
            for line in &way.lines {
                for word in &line.words {
                    for pair in word.windows(2).filter(|_| !matches!(way.manner, Manner::Arc)) {
                        let along = |l: &metrosk_core::words::PlacedLetter| if way.manner == Manner::Standing { l.rect.h } else { l.rect.w };
                        prop_assert_eq!(pair[1].mark - pair[0].mark - along(&pair[0]), line.gap, "{:?}", way.manner);
                    }
                }
            }
        }
    }
}

#[test]
fn a_letter_with_an_accent_comes_out_of_two_pieces_as_long_as_they_last() {
    let of = |accents: u32| SetInStash {
        id: "cork".to_owned(),
        name: "Cork".to_owned(),
        kept: kept(
            json!({"case": "both", "height": 1, "left": {"c": 2, "a": 2, "f": 2, "e": 3, "´": accents}}),
        ),
        taken: BTreeMap::new(),
    };
    let title = title("cafe\u{301}");
    let sets = [of(1)];
    let settings = title.settings(&title.text, space(9.0, 2.0), Unit::Inch, &sets);
    let written = settings.unwrap().to_json(&title);
    let first = &written["proposals"][0];
    assert_eq!(
        first["made"],
        json!(["é out of e, with ´ of the same set"]),
        "{written}"
    );
    assert_eq!(
        first["uses"]["cork"],
        json!({"a": 1, "c": 1, "e": 1, "f": 1, "´": 1})
    );
    // Without an accent that is left the letter itself lacks.
    let sets = [of(0)];
    let settings = title.settings(&title.text, space(9.0, 2.0), Unit::Inch, &sets);
    let written = settings.unwrap().to_json(&title);
    assert_eq!(
        written["why"]["short"]["cork"],
        json!({"é": 1}),
        "{written}"
    );
}

#[test]
fn writing_runs_in_columns_on_strips_on_printed_lines_and_round_the_page() {
    let hand = hand();
    let long = [SENTENCE; 4].join(" ");
    let of = |shape: Shape| {
        let mut here = asked(&long, &hand, "Saturday", space(8.0, 2.0));
        here.shape = shape;
        here
    };
    let lines = of(Shape::Lines).written();
    assert_eq!((lines.room, lines.lines.len()), (8, 4));
    // Two columns of 3 7/8 in: eight lines each.
    let columns = of(Shape::Columns(2)).written();
    assert_eq!(columns.room, 16);
    assert_eq!(columns.slots[8].x, inches(4.125));
    assert!(columns.widths.iter().all(|w| *w <= inches(3.875)));
    // Strips lie 1/8 in apart: 1/4 + n * 3/8 in 2 in.
    assert_eq!(of(Shape::Strips).written().room, 5);
    // A card's lines are closer than she writes, so she writes smaller.
    let printed = Shape::Printed {
        lines: 6,
        apart: inches(0.125),
    };
    assert_eq!(printed.pitch(hand.pitch), inches(0.125));
    assert_eq!(
        (
            of(printed).written().room,
            of(printed).written().lines.len()
        ),
        (6, 2)
    );
    // Round the page: across, down, back and up again, each as long as that side still is.
    let edge = of(Shape::Edge).written();
    let sides: Vec<(u8, Length)> = edge.slots[..4].iter().map(|s| (s.turns, s.w)).collect();
    let wanted = [(0, 8.0), (1, 1.75), (2, 7.75), (3, 1.5)];
    assert_eq!(sides, wanted.map(|(turns, w)| (turns, inches(w))));
    for (line, slot) in edge.widths.iter().zip(&edge.slots) {
        assert!(line <= &slot.w, "{line:?} on {slot:?}");
    }
}

#[test]
fn printed_type_is_as_wide_as_its_letters() {
    let types = Hand::printed(Unit::Inch);
    let ten = types
        .iter()
        .find(|t| t.name == "printed, plain, 10 pt")
        .unwrap();
    let read = json!({"writing": {"text": "x", "hand": ten.to_json()}});
    let read = WordsDecisions::from_json(&read, Unit::Inch).unwrap();
    let again = read.writing.unwrap().hand.unwrap();
    assert_eq!(again.typeface, ten.typeface);
    // Ten points of type stand on lines of 13 1/3 points.
    let pitch = 203_200.0 / 72.0 * 10.0 / 0.75;
    assert!(
        (ten.pitch.ticks() as f64 - pitch).abs() < 50.0,
        "{:?}",
        ten.pitch
    );
    let size = 203_200.0 * 10.0 / 72.0;
    let wide = ten.typeface.unwrap().width("Low sun") * size;
    assert!((ten.width("Low sun") - wide).abs() < 50.0);
    // A line of type is as wide as it is; a hand comes out wider.
    let line = asked("Low sun", ten, "", space(6.0, 1.0)).written();
    assert!((line.widths[0].ticks() as f64 - wide).abs() < 50.0);
}

#[test]
fn words_stand_on_upright_rectangular_photos_only() {
    let photo = |id: &str, x: f64, more: Value| {
        let mut block = json!({"id": id, "from": [], "kind": "photo", "page": 0, "box": {"x": x, "y": 1, "w": 3, "h": 4}});
        json_patch::merge(&mut block, &more);
        block
    };
    let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": [
        photo("p1", 0.5, json!({})), photo("p2", 4.0, json!({"shape": {"type": "ellipse"}})), photo("p3", 8.0, json!({"turn": 5}))]});
    let layout = Layout::from_json(&layout).unwrap();
    let all = places(&layout, &[]);
    let on_photos = all.iter().filter(|p| p.kind == PlaceKind::Photo);
    let keys: Vec<&str> = on_photos.map(|p| p.key.as_str()).collect();
    assert_eq!(keys, ["p1"]);
}

fn in_inches(n: i64) -> f64 {
    n as f64 / 4.0
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, ..ProptestConfig::default() })]

    #[test]
    fn every_line_lies_in_its_space_and_none_on_another(
        w in 4..60_i64, h in 4..60_i64, pitch in 2..8_i64, shape in 0..5_usize,
    ) {
        let shape = [
            Shape::Lines, Shape::Columns(3), Shape::Strips, Shape::Printed { lines: 7, apart: inches(0.5) }, Shape::Edge,
        ][shape];
        let (size, pitch) = (space(in_inches(w), in_inches(h)), shape.pitch(inches(pitch as f64 / 8.0)));
        let lie = |slot: &metrosk_core::words::Slot| {
            let (x, y, w, p) = (slot.x.ticks(), slot.y.ticks(), slot.w.ticks(), pitch.ticks());
            match slot.turns {
                0 => (x, y, x + w, y + p),
                1 => (x - p, y, x, y + w),
                2 => (x - w, y - p, x, y),
                _ => (x, y - w, x + p, y),
            }
        };
        let all: Vec<(i64, i64, i64, i64)> = shape.slots(size, pitch).iter().map(lie).collect();
        for (n, (l, t, r, b)) in all.iter().copied().enumerate() {
            prop_assert!(l >= 0 && t >= 0 && r <= size.w.ticks() && b <= size.h.ticks(), "{n}: {:?}", all[n]);
            for other in &all[n + 1..] {
                let apart = r <= other.0 || other.2 <= l || b <= other.1 || other.3 <= t;
                prop_assert!(apart, "{:?} {other:?}", all[n]);
            }
        }
    }

    #[test]
    fn words_in_a_free_place_lie_on_nothing(
        boxes in prop::collection::vec((0..40_i64, 0..40_i64, 2..16_i64, 2..16_i64), 0..7),
    ) {
        let block = |(n, (x, y, w, h)): (usize, &(i64, i64, i64, i64))| {
            let (x, y) = (in_inches(*x), in_inches(*y));
            let (w, h) = (in_inches(*w).min(12.0 - x), in_inches(*h).min(12.0 - y));
            json!({"id": format!("b{n}"), "from": [], "kind": "paper", "page": 0, "box": {"x": x, "y": y, "w": w, "h": h}})
        };
        let layout = json!({"format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
            "blocks": boxes.iter().enumerate().map(block).collect::<Vec<Value>>()});
        let layout = Layout::from_json(&layout).unwrap();
        for place in places(&layout, &[]).iter().filter(|p| p.kind == PlaceKind::Free) {
            let free = metrosk_core::geometry::Span::from(place.rect);
            for other in &layout.blocks {
                prop_assert!(!free.overlaps(other.block.true_bounds(), 0.0), "{free:?} {other:?}");
            }
        }
    }
}
