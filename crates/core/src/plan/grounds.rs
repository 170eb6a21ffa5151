//! What a station was settled on. When that has changed since, the station needs a look, and can say what changed.

use super::digest::Digest;
use super::stations::Station;
use crate::document::Node;
use serde_json::{Map, Value, json};
use std::cell::RefCell;
use std::collections::BTreeMap;

/// A part of a station's decisions that stations after it build on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Aspect {
    /// Its name in documents.
    name: &'static str,
    /// What changed, in a maker's words: it follows “… changed”.
    words: &'static str,
    /// The section's fields that it is made of; all but the mark where none is named.
    fields: &'static [&'static str],
}

const fn aspect(
    name: &'static str,
    words: &'static str,
    fields: &'static [&'static str],
) -> Aspect {
    Aspect {
        name,
        words,
        fields,
    }
}

/// The fields of a section that say how far it is, not what was decided.
const MARK_FIELDS: [&str; 2] = ["mark", "grounds"];

/// The aspects of a station's decisions.
pub(crate) const fn aspects(station: Station) -> &'static [Aspect] {
    match station {
        Station::Call => const { &[aspect("call", "the call", &["call"])] },
        Station::Sketch => {
            const {
                &[
                    aspect("blocks", "the sketch", &["sketch"]),
                    aspect("stands", "how the sketch is turned", &["turn", "flip"]),
                    aspect("held", "what is held of the sketch", &["keep", "readings"]),
                ]
            }
        }
        Station::Photos => {
            const {
                &[
                    aspect("prints", "the photos", &["photos"]),
                    aspect("mats", "the mats", &["mats"]),
                    aspect("rule", "whether photos may be trimmed", &["photo_rule"]),
                ]
            }
        }
        Station::Fit => {
            const {
                &[
                    aspect("page", "the page", &["target"]),
                    aspect(
                        "way",
                        "the way it is fitted",
                        &["approach", "slack", "emphasis", "snap"],
                    ),
                    aspect(
                        "choices",
                        "what is pinned or chosen",
                        &["pins", "slots", "at_fold", "across_fold"],
                    ),
                ]
            }
        }
        Station::Papers => const { &[aspect("papers", "the papers", &[])] },
        Station::Cut => const { &[aspect("cuts", "the cuts", &[])] },
        Station::Words => const { &[aspect("words", "the words", &[])] },
        Station::Clusters => const { &[aspect("clusters", "the clusters", &[])] },
        Station::Build => const { &[aspect("steps", "the order of building", &[])] },
        Station::Log => const { &[aspect("log", "the log", &[])] },
    }
}

/// The digests of what a station was settled on, by `station.aspect`.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Grounds(BTreeMap<String, String>);

impl Grounds {
    /// What a station builds on, as a plan has it now.
    pub fn of(plan: &Value, station: Station) -> Grounds {
        let present = Present::of(plan);
        let each = |before: &Station| {
            let before = *before;
            let digest = |a: &Aspect| (key(before, a), present.digest(before, a));
            aspects(before).iter().map(digest).collect::<Vec<_>>()
        };
        Grounds(station.builds_on().iter().flat_map(each).collect())
    }

    /// What of these grounds is otherwise in a plan now, in a maker's words.
    pub(super) fn changed_in(&self, present: &Present<'_>) -> Vec<&'static str> {
        let differs = |station: Station, a: &Aspect| {
            let then = self.0.get(&key(station, a));
            then.is_some_and(|then| *then != present.digest(station, a))
        };
        let of = |station: Station| {
            aspects(station)
                .iter()
                .filter(move |a| differs(station, a))
                .map(|a| a.words)
        };
        Station::ALL.into_iter().flat_map(of).collect()
    }

    /// Those that a section has written down.
    pub(crate) fn written_in(section: &Value) -> Grounds {
        let written = section.get("grounds").and_then(Value::as_object);
        let text =
            |(name, digest): (&String, &Value)| Some((name.clone(), digest.as_str()?.to_owned()));
        Grounds(written.into_iter().flatten().filter_map(text).collect())
    }

    /// Writes them.
    pub fn to_json(&self) -> Value {
        json!(self.0)
    }

    /// Reads a section's grounds: texts by name. What a later version builds on may stand there too.
    pub(super) fn read(section: &Node<'_>) -> Option<Grounds> {
        let Some(node) = section.get("grounds") else {
            return Some(Grounds::default());
        };
        let read = |name: &String| Some((name.clone(), node.get(name)?.text()?.to_owned()));
        node.object()?
            .keys()
            .map(read)
            .collect::<Option<_>>()
            .map(Grounds)
    }
}

fn key(station: Station, aspect: &Aspect) -> String {
    format!("{}.{}", station.name(), aspect.name)
}

/// The aspects of a plan as it is now: each is looked at once, however many stations build on it.
pub(super) struct Present<'a> {
    plan: &'a Value,
    known: RefCell<BTreeMap<String, String>>,
}

impl<'a> Present<'a> {
    pub(super) fn of(plan: &'a Value) -> Present<'a> {
        Present {
            plan,
            known: RefCell::default(),
        }
    }

    pub(super) fn plan(&self) -> &'a Value {
        self.plan
    }

    fn digest(&self, station: Station, aspect: &Aspect) -> String {
        let mut known = self.known.borrow_mut();
        let digest = || digest_of(self.plan.get(station.name()), aspect).to_string();
        known
            .entry(key(station, aspect))
            .or_insert_with(digest)
            .clone()
    }
}

/// The fields of a print that are words about it: nothing is built on them.
const WORDS: [&str; 2] = ["name", "note"];

/// A section without what prints are called.
pub(super) fn without_names(section: &Map<String, Value>) -> Map<String, Value> {
    let mut section = section.clone();
    let prints = section.get_mut("photos").and_then(Value::as_array_mut);
    for print in prints
        .into_iter()
        .flatten()
        .filter_map(Value::as_object_mut)
    {
        print.retain(|field, _| !WORDS.contains(&field.as_str()));
    }
    section
}

fn digest_of(section: Option<&Value>, aspect: &Aspect) -> Digest {
    let is_of = |name: &str| {
        if aspect.fields.is_empty() {
            !MARK_FIELDS.contains(&name)
        } else {
            aspect.fields.contains(&name)
        }
    };
    let section = section.and_then(Value::as_object);
    let unnamed = section.map(without_names);
    Digest::of_fields(unnamed.iter().flatten().filter(|(name, _)| is_of(name)))
}
