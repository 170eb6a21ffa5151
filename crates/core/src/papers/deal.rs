//! Dealing papers out over places: no two neighbours the same, the counts even, equal papers far apart.
//!
//! `metrosk-deal/1` is answered by `metrosk-dealt/1`. In this order: locks and quantities hold, as few places as can be stay empty, as few
//! neighbours as can be get the same paper or two that are alike, the counts are as even as can be, equal papers lie as far apart as can be.

use super::dealing::{Board, solve};
use crate::document::{self, Findings, Invalid, Node};
use crate::length::{Length, Unit};
use crate::sketch::read_unit;
use serde_json::{Map, Value, json};
use std::collections::BTreeMap;

const FORMAT: &str = "metrosk-deal/1";
const ANSWER: &str = "metrosk-dealt/1";
/// How many places and papers one deal may have.
const MOST_PLACES: usize = 2_000;
const MOST_PAPERS: usize = 200;

/// A place: its centre, in ticks.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct PlaceToFill {
    /// Unique in the deal.
    pub id: String,
    /// From the left and the top, in ticks.
    pub at: (i64, i64),
}

/// A paper, and how many pieces of it there are.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct PaperToDeal {
    /// Unique in the deal.
    pub id: String,
    /// Pieces.
    pub quantity: usize,
    /// Papers that are not to lie beside it either.
    pub like: Vec<String>,
}

/// What is to be dealt.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Deal {
    /// The same seed gives the same answer; another one another that is as good.
    pub seed: u64,
    /// Places whose centres are nearer to each other than this, in ticks, are neighbours.
    pub reach: i64,
    /// The places.
    pub places: Vec<PlaceToFill>,
    /// The papers.
    pub papers: Vec<PaperToDeal>,
    /// Of each place the paper that it is locked to, by their places in the lists.
    pub locks: Vec<Option<usize>>,
}

/// How it was dealt.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Dealt {
    /// Of each place the paper, by its place in the list; none where it stays empty.
    pub papers: Vec<Option<usize>>,
    /// Neighbours that got the same paper, or two that are alike.
    pub met: Vec<(usize, usize)>,
}

impl Deal {
    /// Reads what is to be dealt.
    ///
    /// # Errors
    /// All that breaks the format, each with its JSON path.
    pub fn from_json(value: &Value) -> Result<Deal, Invalid> {
        let findings = Findings::default();
        let deal = read_deal(&Node::top(value, &findings));
        findings.finish(deal)
    }

    /// Reads it from text.
    ///
    /// # Errors
    /// When the text is not JSON, or breaks the format.
    pub fn from_text(text: &str) -> Result<Deal, Invalid> {
        Deal::from_json(&document::parse_json(text)?)
    }

    /// Deals.
    #[must_use]
    pub fn dealt(&self) -> Dealt {
        let board = self.board();
        let mut papers = solve(&board, self.seed);
        self.trade_places(&mut papers);
        Dealt {
            met: board.met(&papers),
            papers,
        }
    }

    /// Papers that could stand for each other trade places, by the seed: where only one pattern is best, another seed still deals other papers
    /// into it. They are first put into the order in which they appear, so that two seeds never undo what the search did.
    fn trade_places(&self, papers: &mut [Option<usize>]) {
        let mut stands_for: Vec<usize> = (0..self.papers.len()).collect();
        for class in self.interchangeable() {
            let by = (self.seed % class.len() as u64) as usize;
            let first = |paper: &usize| papers.iter().position(|p| *p == Some(*paper));
            let mut as_they_appear = class.clone();
            as_they_appear.sort_by_key(|p| first(p).unwrap_or(usize::MAX));
            for (n, paper) in as_they_appear.iter().enumerate() {
                stands_for[*paper] = class[(n + by) % class.len()];
            }
        }
        for paper in papers.iter_mut().flatten() {
            *paper = stands_for[*paper];
        }
    }

    /// Papers without a lock of which there are as many, and that are alike to the same others.
    fn interchangeable(&self) -> Vec<Vec<usize>> {
        let alike_to = |a: usize, without: [usize; 2]| -> Vec<usize> {
            let others = (0..self.papers.len()).filter(|b| !without.contains(b));
            others.filter(|b| self.are_alike(a, *b)).collect()
        };
        let may_trade = |a: usize, b: usize| {
            self.papers[a].quantity == self.papers[b].quantity
                && alike_to(a, [a, b]) == alike_to(b, [a, b])
        };
        let mut classes: Vec<Vec<usize>> = Vec::new();
        for paper in (0..self.papers.len()).filter(|p| !self.locks.contains(&Some(*p))) {
            match classes.iter_mut().find(|c| may_trade(c[0], paper)) {
                Some(class) => class.push(paper),
                None => classes.push(vec![paper]),
            }
        }
        classes
    }

    fn are_alike(&self, a: usize, b: usize) -> bool {
        let names = |x: &PaperToDeal, y: &PaperToDeal| x.like.contains(&y.id);
        let (p, q) = (&self.papers[a], &self.papers[b]);
        a == b || names(p, q) || names(q, p)
    }

    /// Neighbours that have the same paper, or two that are alike.
    pub(super) fn meetings(&self, papers: &[Option<usize>]) -> Vec<(usize, usize)> {
        self.board().met(&papers.to_vec())
    }

    fn board(&self) -> Board {
        let alike = |a: usize, b: usize| self.are_alike(a, b);
        Board::new(
            self.places.iter().map(|p| p.at).collect(),
            self.reach,
            self.papers.iter().map(|p| p.quantity).collect(),
            &alike,
            self.locks.clone(),
        )
    }

    /// Writes an answer.
    #[must_use]
    pub fn answer(&self, dealt: &Dealt) -> Value {
        let given = self.places.iter().zip(&dealt.papers);
        let places: Map<String, Value> = given
            .filter_map(|(place, paper)| {
                let paper = &self.papers[(*paper)?].id;
                Some((place.id.clone(), Value::from(paper.clone())))
            })
            .collect();
        let name = |n: usize| self.places[n].id.clone();
        let met: Vec<[String; 2]> = dealt
            .met
            .iter()
            .map(|(a, b)| [name(*a), name(*b)])
            .collect();
        let short = dealt.papers.iter().filter(|p| p.is_none()).count();
        json!({"format": ANSWER, "places": places, "met": met, "short": short})
    }
}

fn read_deal(top: &Node<'_>) -> Option<Deal> {
    top.object()?;
    if let Some(format) = top.need("format", FORMAT)
        && format.value.as_str() != Some(FORMAT)
    {
        format.wrong(FORMAT);
    }
    let unit = read_unit(top).unwrap_or_default();
    let seed = top.get("seed").map_or(Some(0), |n| {
        let read = n.value.as_u64();
        if read.is_none() {
            n.wrong("a whole number from 0");
        }
        read
    });
    let reach = top
        .need("reach", "a length above 0")
        .and_then(|n| n.length(unit, Length::from_ticks(1), Length::LIMIT));
    let places = top
        .need("places", "a list of places")
        .and_then(|n| n.each(MOST_PLACES, |p| read_place(p, unit)));
    let papers = top
        .need("papers", "a list of papers")
        .and_then(|n| n.each(MOST_PAPERS, read_paper));
    let (places, papers) = (places?, papers?);
    let by_id = |ids: Vec<&String>, list: &str| -> Option<BTreeMap<String, usize>> {
        let mut known = BTreeMap::new();
        for (n, id) in ids.into_iter().enumerate() {
            if known.insert(id.clone(), n).is_some() {
                top.get(list)?
                    .wrong_because(format!("“{id}” twice"), "each id once");
                return None;
            }
        }
        Some(known)
    };
    let known_places = by_id(places.iter().map(|p| &p.id).collect(), "places");
    let known_papers = by_id(papers.iter().map(|p| &p.id).collect(), "papers");
    let locks = read_locks(top, &known_places?, &known_papers?, &papers);
    Some(Deal {
        seed: seed?,
        reach: reach?.ticks(),
        places,
        papers,
        locks: locks?,
    })
}

fn read_place(node: &Node<'_>, unit: Unit) -> Option<PlaceToFill> {
    node.object()?;
    let id = node
        .need("id", "a text that no other place has")
        .and_then(|n| n.text());
    let along = |name| {
        node.need(name, "a length")
            .and_then(|n| n.length(unit, Length::ZERO - Length::LIMIT, Length::LIMIT))
    };
    let (x, y) = (along("x"), along("y"));
    Some(PlaceToFill {
        id: id?.to_owned(),
        at: (x?.ticks(), y?.ticks()),
    })
}

fn read_paper(node: &Node<'_>) -> Option<PaperToDeal> {
    node.object()?;
    let id = node
        .need("id", "a text that no other paper has")
        .and_then(|n| n.text());
    let quantity = node
        .need("qty", "a whole number from 0")
        .and_then(|n| n.count(0, u32::MAX));
    let like = node
        .get("like")
        .map_or(Some(Vec::new()), |n| n.texts(MOST_PAPERS));
    Some(PaperToDeal {
        id: id?.to_owned(),
        quantity: quantity? as usize,
        like: like?,
    })
}

fn read_locks(
    top: &Node<'_>,
    places: &BTreeMap<String, usize>,
    papers: &BTreeMap<String, usize>,
    all: &[PaperToDeal],
) -> Option<Vec<Option<usize>>> {
    let mut locks = vec![None; places.len()];
    let Some(node) = top.get("locks") else {
        return Some(locks);
    };
    let mut used = vec![0_usize; all.len()];
    for (place, _) in node.object()? {
        let paper = node.get(place)?;
        let Some(at) = places.get(place) else {
            node.wrong_because(format!("a lock on “{place}”"), "places of the list");
            return None;
        };
        let named = papers.get(paper.text()?).copied();
        let Some(n) = named else {
            paper.wrong("a paper of the list");
            return None;
        };
        used[n] += 1;
        if used[n] > all[n].quantity {
            let paper_id = &all[n].id;
            node.wrong_because(
                format!("more locks of “{paper_id}” than there are pieces"),
                format!("up to {}", all[n].quantity),
            );
            return None;
        }
        locks[*at] = Some(n);
    }
    Some(locks)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn grid(cols: i64, rows: i64, reach: f64, papers: Value) -> Value {
        let places: Vec<Value> = (0..cols * rows)
            .map(|n| json!({"id": format!("{}/{}", n / cols, n % cols), "x": n % cols, "y": n / cols}))
            .collect();
        json!({"format": FORMAT, "unit": "in", "seed": 1, "reach": reach, "places": places, "papers": papers})
    }

    fn deal(request: &Value) -> (Deal, Dealt) {
        let deal = Deal::from_json(request).unwrap_or_else(|e| panic!("{e}"));
        let dealt = deal.dealt();
        (deal, dealt)
    }

    #[test]
    fn two_papers_make_a_chequerboard_and_three_are_even() {
        let two = json!([{"id": "coral", "qty": 8}, {"id": "teal", "qty": 8}]);
        assert_eq!(deal(&grid(4, 4, 1.2, two)).1.met, []);
        let three = json!([{"id": "a", "qty": 20}, {"id": "b", "qty": 20}, {"id": "c", "qty": 20}]);
        let (_, dealt) = deal(&grid(6, 4, 1.2, three));
        let count = |n| dealt.papers.iter().filter(|p| **p == Some(n)).count();
        assert_eq!(
            (dealt.met.len(), [count(0), count(1), count(2)]),
            (0, [8, 8, 8])
        );
    }

    #[test]
    fn what_is_alike_keeps_apart_and_locks_hold() {
        let papers = json!([{"id": "mint", "qty": 9}, {"id": "teal", "qty": 9, "like": ["mint"]}, {"id": "coral", "qty": 9}]);
        let mut request = grid(3, 3, 1.2, papers);
        request["locks"] = json!({"1/1": "teal"});
        let (deal, dealt) = deal(&request);
        assert_eq!(dealt.papers[4], Some(1));
        assert_eq!(dealt.met, []);
        assert_eq!(deal.dealt(), dealt, "the same seed");
    }

    #[test]
    fn another_seed_deals_other_papers_into_the_one_best_pattern() {
        let two = json!([{"id": "coral", "qty": 8}, {"id": "teal", "qty": 8}]);
        let mut request = grid(4, 4, 1.2, two);
        request["seed"] = json!(6);
        let (_, even) = deal(&request);
        request["seed"] = json!(7);
        let (_, odd) = deal(&request);
        assert_eq!((even.met.len(), odd.met.len()), (0, 0));
        let traded = |p: &Option<usize>| p.map(|n| 1 - n);
        assert_eq!(
            even.papers.iter().map(traded).collect::<Vec<_>>(),
            odd.papers
        );
    }

    #[test]
    fn too_few_papers_leave_places_empty() {
        let (deal, dealt) = deal(&grid(3, 3, 1.2, json!([{"id": "a", "qty": 4}])));
        let answer = deal.answer(&dealt);
        assert_eq!((&answer["short"], dealt.met.len()), (&json!(5), 0));
    }

    #[test]
    fn what_is_wrong_is_told() {
        let papers = json!([{"id": "a", "qty": 1}]);
        for (field, value, said) in [
            ("locks", json!({"9/9": "a"}), "9/9"),
            ("locks", json!({"0/0": "b"}), "a paper of the list"),
            ("locks", json!({"0/0": "a", "0/1": "a"}), "more locks"),
            (
                "papers",
                json!([{"id": "a", "qty": 1}, {"id": "a", "qty": 1}]),
                "twice",
            ),
            ("papers", json!([{"id": "a", "qty": -1}]), "-1"),
            ("papers", json!([{"id": "a", "qty": 1.5}]), "1.5"),
        ] {
            let mut request = grid(2, 2, 1.2, papers.clone());
            request[field] = value;
            let error = Deal::from_json(&request).expect_err(said).to_string();
            assert!(error.contains(said), "{error}");
        }
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(24))]
        #[test]
        fn quantities_and_locks_hold_and_what_meets_is_told(
            cols in 1..6i64, rows in 1..6i64, quantities in prop::collection::vec(0..9usize, 1..5), lock in any::<bool>(), seed in 0..9u64,
        ) {
            let papers: Vec<Value> = quantities.iter().enumerate().map(|(n, q)| json!({"id": n.to_string(), "qty": q})).collect();
            let mut request = grid(cols, rows, 1.5, json!(papers));
            request["seed"] = json!(seed);
            if lock && quantities[0] > 0 {
                request["locks"] = json!({"0/0": "0"});
            }
            let (_, dealt) = deal(&request);
            for (n, q) in quantities.iter().enumerate() {
                prop_assert!(dealt.papers.iter().filter(|p| **p == Some(n)).count() <= *q);
            }
            if lock && quantities[0] > 0 {
                prop_assert_eq!(dealt.papers[0], Some(0));
            }
            let all = (cols * rows) as usize;
            let empty = dealt.papers.iter().filter(|p| p.is_none()).count();
            prop_assert_eq!(empty, all.saturating_sub(quantities.iter().sum::<usize>()));
        }
    }
}
