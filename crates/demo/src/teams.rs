//! The demo's two teams.

use crate::pages::{self, Page};
use crate::season::{self, SeasonCall};
use chrono::NaiveDate;
use metrosk_core::sketch::Sketch;

/// A team with all that it has.
#[derive(Debug, Clone)]
pub struct Team {
    /// Its name.
    pub name: &'static str,
    /// Account, name and role of each of its people.
    pub people: Vec<(&'static str, &'static str, &'static str)>,
    /// Its drawer.
    pub sketches: Vec<Sketch>,
    /// Its table.
    pub pages: Vec<Page>,
    /// What is asked of it.
    pub calls: Vec<SeasonCall>,
}

/// The club whose festival it is, and a neighbouring one that lends it a sketch now and then; their dates are as of a day.
pub fn teams(seed: u64, today: NaiveDate) -> Vec<Team> {
    let all = crate::sketches(seed);
    let calls = season::of_the_club(today);
    let pages = pages::of_the_club(&all, &calls);
    let lent: Vec<Sketch> = all
        .iter()
        .filter(|s| ["Low sun, both pages", "Red noses"].contains(&s.name.as_str()))
        .cloned()
        .collect();
    let guests = pages::of_the_neighbours(&lent);
    vec![
        Team {
            name: "Slipway Paper Club",
            people: vec![
                ("wren", "Wren", "lead"),
                ("teal", "Teal", "member"),
                ("plover", "Plover", "member"),
                ("gull", "Gull", "guest"),
            ],
            sketches: all,
            pages,
            calls,
        },
        Team {
            name: "Harbour Lamp Makers",
            people: vec![
                ("sandpiper", "Sandpiper", "lead"),
                ("wren", "Wren", "member"),
            ],
            sketches: lent,
            pages: guests,
            calls: Vec::new(),
        },
    ]
}
