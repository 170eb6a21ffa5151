//! The club's season: what is asked, who makes it, and a hop.

use chrono::{NaiveDate, TimeDelta};
use metrosk_core::calls::Call;
use metrosk_core::plan::{Defaults, start_for_call};
use metrosk_core::sketch::Sketch;
use serde_json::{Value, json};

/// A call of the club.
#[derive(Debug, Clone)]
pub struct SeasonCall {
    /// Its id, as 32 hexadecimal digits: pages name it.
    pub id: u128,
    /// What is asked.
    pub document: Value,
    /// The sketch that is asked for, by its name.
    pub sketch: Option<&'static str>,
    /// Who wrote it.
    pub author: &'static str,
    /// Who takes part, by her account, and the page she has begun, by its name.
    pub makers: Vec<(&'static str, Option<&'static str>)>,
    /// Who has taken the next one, where it comes again.
    pub next_maker: Option<&'static str>,
    /// The chain of a hop.
    pub chain: Vec<ChainMaker>,
}

/// A maker in the hop's chain.
#[derive(Debug, Clone)]
pub struct ChainMaker {
    /// The account of somebody of the club, or the name of somebody from outside.
    pub who: Result<&'static str, &'static str>,
    /// Where her page is to be seen.
    pub url: Option<&'static str>,
    /// The sketch that stands for her page.
    pub sketch: Option<&'static str>,
    /// Her day.
    pub day: NaiveDate,
}

impl SeasonCall {
    /// The first plan of a page that answers it.
    pub(crate) fn plan(&self, sketch: &Sketch) -> Value {
        let mut document = self.document.clone();
        let call = Call::from_json(&document).expect("the demo's calls are calls");
        if call.asks_for_sketch() {
            document["sketch"] = sketch.to_json();
        }
        let hex = format!("{:032x}", self.id);
        let id = [
            &hex[..8],
            &hex[8..12],
            &hex[12..16],
            &hex[16..20],
            &hex[20..],
        ]
        .join("-");
        start_for_call(sketch, &Defaults::default(), (&call, &document), (&id, 1))
    }
}

/// The ids begin with this, and end with the call's number.
const FIRST_ID: u128 = 0x5ea5_0000_0000_4000_8000_0000_0000_0000;

/// The club's calls, as of a day.
pub(crate) fn of_the_club(today: NaiveDate) -> Vec<SeasonCall> {
    let day = |days: i64| today + TimeDelta::days(days);
    let on = |days: i64| Value::from(day(days).to_string());
    let call = |n: u128, author, document: Value| SeasonCall {
        id: FIRST_ID + n,
        document,
        sketch: None,
        author,
        makers: Vec::new(),
        next_maker: None,
        chain: Vec::new(),
    };
    let link = |who, days| ChainMaker {
        who,
        url: None,
        sketch: None,
        day: day(days),
    };
    vec![
        SeasonCall {
            makers: vec![("wren", Some("Flags drying"))],
            ..call(
                1,
                "Wren",
                json!({
                    "name": "First frost", "kind": "challenge", "due": on(-20), "shown": on(-17),
                    "text": "Whatever the first cold morning left hanging outside.",
                    "asks": [{"id": "a", "what": "photos", "count": 2}, {"id": "b", "what": "technique", "name": "Stamping"}],
                }),
            )
        },
        SeasonCall {
            makers: vec![("wren", Some("Low sun on one sheet")), ("plover", None)],
            ..call(
                2,
                "Teal",
                json!({
                    "name": "From behind", "kind": "challenge", "due": on(-1), "shown": on(4),
                    "text": "Somebody seen from behind, walking away into the light.",
                    "asks": [{"id": "a", "what": "pages", "count": 1}, {"id": "b", "what": "large-photo", "w": 6, "h": 4}],
                }),
            )
        },
        SeasonCall {
            sketch: Some("Three by the tide line"),
            makers: vec![
                ("plover", Some("Low water")),
                ("wren", Some("Kites over the flats")),
                ("teal", None),
            ],
            chain: vec![
                ChainMaker {
                    url: Some("https://dunlin.example/three-by-the-tide-line"),
                    sketch: Some("Three by the tide line"),
                    ..link(Err("Dunlin"), -11)
                },
                link(Ok("plover"), -4),
                link(Ok("wren"), 3),
                link(Ok("teal"), 10),
            ],
            ..call(
                3,
                "Plover",
                json!({
                    "name": "Out on the flats", "kind": "hop", "due": on(10), "shown": on(14),
                    "prize": on(18), "prize_time": "23:00", "zone": "UTC",
                    "text": "Pass one sketch along the slipway, four makers, a page each. Show us how cold it was.",
                    "asks": [
                        {"id": "a", "what": "photos", "count": 3},
                        {"id": "b", "what": "large-photo", "w": 6, "h": 4},
                        {"id": "c", "what": "sketch"},
                        {"id": "d", "what": "papers", "count": 3, "kit": "Ebb"},
                        {"id": "e", "what": "technique", "name": "Stitching"},
                        {"id": "f", "what": "other", "name": "A sledge somewhere"},
                    ],
                    "credits": [{"what": "call", "name": "Plover"}, {"what": "kit", "name": "Teal"}],
                    "links": [{"name": "the rules of the hop", "url": "https://slipway.example/out-on-the-flats"}],
                }),
            )
        },
        SeasonCall {
            sketch: Some("Tea at the slipway"),
            makers: vec![("teal", Some("Tea at the slipway"))],
            next_maker: Some("plover"),
            ..call(
                4,
                "Wren",
                json!({
                    "name": "Only scraps", "kind": "challenge", "due": on(9), "shown": on(11),
                    "repeats": {"every": "weeks", "number": 2},
                    "text": "Nothing but what is left in the scrap tin.",
                    "asks": [{"id": "a", "what": "sketch"}, {"id": "b", "what": "other", "name": "No sheet is cut anew"}],
                }),
            )
        },
        SeasonCall {
            makers: vec![("wren", Some("Sledge race"))],
            ..call(
                5,
                "Teal",
                json!({
                    "name": "All of the Ebb kit", "kit": "Ebb", "kind": "kit", "due": on(14), "shown": on(16),
                    "repeats": {"every": "weeks", "number": 4},
                    "text": "The kit until nothing of it is left.",
                    "asks": [{"id": "a", "what": "kit", "name": "Ebb"}, {"id": "b", "what": "papers", "count": 5, "kit": "Ebb"}],
                    "credits": [{"what": "kit", "name": "Teal"}],
                }),
            )
        },
    ]
}

/// The call that a page of that name answers.
pub(crate) fn call_of<'a>(calls: &'a [SeasonCall], page: &str) -> Option<&'a SeasonCall> {
    calls
        .iter()
        .find(|c| c.makers.iter().any(|m| m.1 == Some(page)))
}
