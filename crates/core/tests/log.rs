//! The log: its journal, what went wrong and what that suggests, the pack.
#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use chrono::{TimeZone, Utc};
use metrosk_core::length::{Length, Unit};
use metrosk_core::log::{
    KeptOut, LogDecisions, Pack, PackLine, Supply, Wrong, ahead_of, counted, journal,
    minutes_taken, missing, suggested,
};
use metrosk_core::words::Writing;
use serde_json::{Value, json};

fn log(entries: Value) -> LogDecisions {
    LogDecisions::from_json(&json!({"entries": entries}), Unit::Inch).unwrap()
}

fn short(n: usize, by: f64) -> Value {
    json!({"id": format!("e{n}"), "at": "2026-11-26T20:00:00Z", "kind": "wrong", "wrong": "cut-short", "by": by})
}

#[test]
fn the_journal_goes_day_by_day_and_pauses_are_no_work() {
    let found = log(json!([
        {"id": "c", "at": "2026-11-27T09:00:00Z", "kind": "step", "text": "Titled."},
        {"id": "a", "at": "2026-11-26T20:00:00Z", "kind": "step", "text": "Cut."},
        {"id": "b", "at": "2026-11-26T20:31:00Z", "kind": "step", "text": "Stitched."},
        {"id": "n", "at": "2026-11-26T20:40:00Z", "kind": "note", "text": "It holds."},
        {"id": "d", "at": "2026-11-27T09:10:30Z", "kind": "wrong", "wrong": "crooked", "text": "Lifted it."},
    ]));
    let days: Vec<(String, Vec<&str>)> = journal(&found.entries)
        .iter()
        .map(|d| {
            (
                d.day.to_string(),
                d.entries.iter().map(|e| e.id.as_str()).collect(),
            )
        })
        .collect();
    assert_eq!(
        days,
        [
            ("2026-11-26".to_owned(), vec!["a", "b", "n"]),
            ("2026-11-27".to_owned(), vec!["c", "d"])
        ]
    );
    assert_eq!(
        minutes_taken(&found.entries),
        42,
        "31 and 11, not the night"
    );
    let now = Utc.with_ymd_and_hms(2026, 11, 27, 9, 5, 0).unwrap();
    assert!(
        ahead_of(&found.entries, now).is_empty(),
        "within ten minutes is no wrong clock"
    );
    let yesterday = Utc.with_ymd_and_hms(2026, 11, 26, 21, 0, 0).unwrap();
    assert_eq!(ahead_of(&found.entries, yesterday), ["c", "d"]);
}

#[test]
fn three_short_pieces_suggest_a_tuck_that_would_have_covered_them() {
    let half = Length::inches(1, 2);
    let two = log(json!([short(1, 0.0625), short(2, 0.125)]));
    assert!(suggested(two.entries.iter(), half, Unit::Inch).is_empty());
    let four = log(json!([
        short(1, 0.0625),
        short(2, 0.0625),
        short(3, 0.125),
        short(4, 0.125)
    ]));
    let told = suggested(four.entries.iter(), half, Unit::Inch);
    assert_eq!(told.len(), 1);
    assert_eq!(
        (told[0].tuck, told[0].helps, told[0].of),
        (Some(Length::inches(5, 8)), 4, 4)
    );
    assert_eq!(
        told[0].text,
        "4 pieces came out short, by up to 1/8 in. A tuck of 5/8 in in place of 1/2 in would have covered all of them."
    );
    let far = log(json!([short(1, 3.0), short(2, 3.0), short(3, 3.0)]));
    assert!(
        suggested(far.entries.iter(), half, Unit::Inch).is_empty(),
        "no tuck mends that"
    );
    let counts = counted(four.entries.iter().chain(&log(json!([{"id": "x", "at": "2026-11-26T20:00:00Z", "kind": "wrong", "wrong": "blot"}])).entries))
        .iter()
        .map(|c| (c.what, c.count))
        .collect::<Vec<_>>();
    assert_eq!(counts, [(Wrong::CutShort, 4), (Wrong::Blot, 1)]);
}

fn writing() -> Writing {
    Writing {
        text: "Wren and Plover held the kite by the slipway until noon.".to_owned(),
        date: "7 November".to_owned(),
        place: "the slipway".to_owned(),
        names: "Wren, Teal and Plover".to_owned(),
        ..Writing::default()
    }
}

#[test]
fn names_and_places_stay_out_unless_she_says_otherwise() {
    let usual = Pack::story_of(&LogDecisions::default(), Some(&writing()));
    assert_eq!(
        usual,
        "… and … held the kite by … until noon.\n\n7 November"
    );
    let open = LogDecisions {
        leave_out: [KeptOut::Date].into(),
        ..LogDecisions::default()
    };
    let told = Pack::story_of(&open, Some(&writing()));
    assert!(told.starts_with("Wren and Plover held the kite by the slipway"));
    assert!(
        told.ends_with("the slipway, Wren, Teal and Plover"),
        "{told}"
    );
}

fn pack() -> Pack {
    Pack {
        title: "Kites <over> the flats".to_owned(),
        maker: "Wren".to_owned(),
        credits: vec!["Sketch by Gull.".to_owned()],
        story: "Low water *early*.".to_owned(),
        supplies: vec![
            Supply {
                kit: None,
                name: "Twine".to_owned(),
                count: 1,
            },
            Supply {
                kit: Some("Ebb".to_owned()),
                name: "Tide waves".to_owned(),
                count: 2,
            },
        ],
        measures: vec![PackLine {
            of: Some("4".to_owned()),
            text: "shows 3 × 4 in, cut 3 1/2 × 4 1/2 in".to_owned(),
        }],
        steps: vec![PackLine {
            of: None,
            text: "Glue 4 down".to_owned(),
        }],
        links: vec!["Teal: https://teal.example/kites".to_owned()],
        tags: vec!["Ebb".to_owned()],
    }
}

#[test]
fn the_pack_says_the_same_as_markdown_html_and_plain_text() {
    let (markdown, html, plain) = (pack().to_markdown(), pack().to_html(), pack().to_plain());
    assert!(markdown.starts_with("# Kites \\<over\\> the flats\n"));
    assert!(markdown.find("### Ebb").unwrap() < markdown.find("### In no kit").unwrap());
    assert!(
        html.contains("<h1>Kites &lt;over&gt; the flats</h1>"),
        "{html}"
    );
    assert!(
        html.contains("<li>2 × Tide waves</li>")
            && html.contains("*early*")
            && !html.contains("<em>")
    );
    for said in [
        "2 × Tide waves",
        "4: shows 3 × 4 in, cut 3 1/2 × 4 1/2 in",
        "1. Glue 4 down",
        "Sketch by Gull",
        "Low water *early*.",
    ] {
        assert!(plain.contains(said), "{said} in {plain}");
    }
}

#[test]
fn what_a_pack_lacks_is_said() {
    let lacks = missing(&pack(), &LogDecisions::default(), true);
    assert_eq!(
        lacks,
        [
            "a picture of the whole page",
            "a close-up",
            "a link to the next maker’s page"
        ]
    );
    let whole = LogDecisions {
        picture: Some("a".to_owned()),
        closeups: vec!["b".to_owned()],
        ..LogDecisions::default()
    };
    assert!(missing(&pack(), &whole, false).is_empty());
}

#[test]
fn what_cannot_be_meant_is_refused_with_its_path() {
    for (wrong, path) in [
        (
            json!({"entries": [{"id": "a", "at": "yesterday", "kind": "note"}]}),
            "entries[0].at",
        ),
        (
            json!({"entries": [{"id": "a", "at": "2026-11-26T20:00:00Z", "kind": "wrong"}]}),
            "entries[0].wrong",
        ),
        (
            json!({"entries": [{"id": "a", "at": "2026-11-26T20:00:00Z", "kind": "song"}]}),
            "entries[0].kind",
        ),
        (
            json!({"entries": [{"id": "a", "at": "2026-11-26T20:00:00Z", "kind": "wrong", "wrong": "cut-short", "by": -1}]}),
            "entries[0].by",
        ),
        (json!({"link": "../etc"}), "link"),
        (json!({"leave_out": ["faces"]}), "leave_out[0]"),
    ] {
        let error = LogDecisions::from_json(&wrong, Unit::Inch).expect_err(path);
        assert!(
            error.findings.iter().any(|f| f.path == path),
            "{path}: {error}"
        );
    }
}
