//! What cannot hold together: the smallest set found, in a maker's words.

use super::item::Item;
use super::pin::PinEdge;
use super::qp::Qp;
use super::reason::Reason;
use super::request::Request;
use crate::sketch::{Kind, Sketch};

/// Why a request can't be met.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Conflict {
    /// In a maker's words.
    pub text: String,
    /// Indexes of the request's pins in it.
    pub pins: Vec<usize>,
    /// Ids of the sketch blocks in it.
    pub blocks: Vec<String>,
    /// Names of the limits in it.
    pub limits: Vec<String>,
}

impl Conflict {
    /// The page that an approach keeps is empty.
    pub(crate) fn nothing_left() -> Conflict {
        Conflict {
            text: "The page that would be kept has no blocks: everything of the sketch is on the other one.".to_owned(),
            pins: Vec::new(),
            blocks: Vec::new(),
            limits: vec!["approach".to_owned()],
        }
    }

    /// No approach has a proposal, and none says why.
    pub(crate) fn nothing_fits() -> Conflict {
        Conflict {
            text: "No way to lay this sketch on that page was found.".to_owned(),
            pins: Vec::new(),
            blocks: Vec::new(),
            limits: Vec::new(),
        }
    }

    /// There is no slot to put photos in.
    pub(crate) fn no_slots(request: &Request) -> Conflict {
        let count = request.photo_count().unwrap_or_default();
        Conflict {
            text: format!(
                "The sketch has no photo slot, so there is no place for {count} {}.",
                if count == 1 { "photo" } else { "photos" }
            ),
            pins: Vec::new(),
            blocks: Vec::new(),
            limits: vec!["photos".to_owned()],
        }
    }
}

/// The smallest set of hard rows found that can't hold together: rows are let go of one at a time, in a fixed order,
/// and those whose going makes the rest possible stay (a deletion filter; the set found is minimal, not the least).
pub(crate) fn explain(request: &Request, sketch: &Sketch, items: &[Item], qp: &Qp) -> Conflict {
    let mut rows: Vec<usize> = (0..qp.rows.len())
        .filter(|r| qp.rows[*r].penalty.is_none())
        .collect();
    // Limits first, so that what is left is told by as many pins as needed and as few limits as possible.
    let mut order = rows.clone();
    order.sort_by_key(|r| (matches!(qp.rows[*r].reason, Reason::Pin(_)), *r));
    let mut size = order.len().div_ceil(4).max(1);
    let mut waiting = order;
    while !waiting.is_empty() {
        let chunk: Vec<usize> = waiting.drain(..size.min(waiting.len())).collect();
        let without: Vec<usize> = rows
            .iter()
            .copied()
            .filter(|r| !chunk.contains(r))
            .collect();
        if !qp.is_possible(&without) {
            rows = without;
        } else if chunk.len() > 1 {
            size = (chunk.len() / 2).max(1);
            waiting.splice(0..0, chunk);
        }
    }
    describe(request, sketch, items, qp, &rows)
}

fn describe(
    request: &Request,
    sketch: &Sketch,
    items: &[Item],
    qp: &Qp,
    rows: &[usize],
) -> Conflict {
    let reasons: Vec<Reason> = rows.iter().map(|r| qp.rows[*r].reason).collect();
    let mut pins: Vec<usize> = reasons
        .iter()
        .filter_map(|r| {
            if let Reason::Pin(n) = r {
                Some(*n)
            } else {
                None
            }
        })
        .collect();
    pins.sort_unstable();
    pins.dedup();
    let mut named: Vec<usize> = reasons
        .iter()
        .flat_map(|r| r.items())
        .flat_map(|i| items[i].from.clone())
        .collect();
    named.extend(
        pins.iter()
            .flat_map(|p| request.pins[*p].blocks())
            .filter_map(|id| sketch.index_of(id)),
    );
    named.sort_unstable();
    named.dedup();
    let mut limits: Vec<String> = reasons
        .iter()
        .filter_map(|r| r.limit())
        .map(str::to_owned)
        .collect();
    limits.sort();
    limits.dedup();
    let text = sentence(request, sketch, items, &pins, &reasons);
    Conflict {
        text,
        pins,
        blocks: named
            .into_iter()
            .map(|n| sketch.blocks[n].id.clone())
            .collect(),
        limits,
    }
}

fn sentence(
    request: &Request,
    sketch: &Sketch,
    items: &[Item],
    pins: &[usize],
    reasons: &[Reason],
) -> String {
    let held: Vec<String> = pins.iter().map(|p| pin_text(request, sketch, *p)).collect();
    let name = |i: usize| names_of(sketch, &items[i]);
    let mut because: Vec<String> = Vec::new();
    for reason in reasons {
        let text = match *reason {
            Reason::Margin(_) if request.margin.ticks() > 0 => format!(
                "the margin of {}",
                request.margin.to_ruler_text(request.unit)
            ),
            Reason::Margin(_) => "the page's edge".to_owned(),
            Reason::Fold(i)
                if items[i].kind == Kind::Cluster
                    || items[i].kind == Kind::Accent
                    || items[i].kind == Kind::Mat =>
            {
                "the fold".to_owned()
            }
            Reason::Fold(_) => format!(
                "the fold guard of {}",
                request.fold_guard.to_ruler_text(request.unit)
            ),
            Reason::Bleed(i) => format!("the {} runs off the page", name(i)),
            Reason::Mat(i) => format!("the border of the {}", name(i)),
            Reason::Apart(a, b) => format!("the {} and the {} must not overlap", name(a), name(b)),
            Reason::Print(i) if request.whole => {
                format!("the print in the {} keeps its size", name(i))
            }
            Reason::Print(i) => format!("the {} can't be larger than its print", name(i)),
            Reason::Size(i) => format!("the {} needs some width and height", name(i)),
            Reason::Cells(i) => format!(
                "the {} holds {} prints",
                name(i),
                items[i].cell_runs().len()
            ),
            Reason::Pin(_) | Reason::Wish(..) => continue,
        };
        if !because.contains(&text) {
            because.push(text);
        }
    }
    match (held.len(), because.is_empty()) {
        (0, _) => format!(
            "These can't hold together on this page: {}.",
            because.join(", ")
        ),
        (_, true) => format!("These pins can't hold together: {}.", held.join("; ")),
        (1, false) => format!(
            "{} can't hold, because of this: {}.",
            capital(&held[0]),
            because.join(", ")
        ),
        (_, false) => format!(
            "These pins can't hold together: {}; because of this: {}.",
            held.join("; "),
            because.join(", ")
        ),
    }
}

fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters
        .next()
        .map(|c| c.to_uppercase().chain(letters).collect())
        .unwrap_or_default()
}

pub(crate) fn pin_text(request: &Request, sketch: &Sketch, pin: usize) -> String {
    let pin = &request.pins[pin];
    let name = |id: &str| {
        format!(
            "the {} {id}",
            sketch
                .index_of(id)
                .map_or("block", |n| sketch.blocks[n].kind.word())
        )
    };
    let (own, at) = (name(&pin.block), pin.at.to_ruler_text(request.unit));
    let Some(to) = &pin.to else {
        return match pin.edge {
            PinEdge::Width => format!("{own} {at} wide"),
            PinEdge::Height => format!("{own} {at} high"),
            edge => format!("{} {own} at {at}", edge.said()),
        };
    };
    let other = name(&to.block);
    let (way, far) = (pin.at.ticks(), pin.at.abs().to_ruler_text(request.unit));
    if pin.edge.is_size() {
        let part = if (to.times - 1.0).abs() < f64::EPSILON {
            String::new()
        } else {
            format!("{} times ", to.times)
        };
        let more = match way {
            0 => String::new(),
            1.. => format!(" plus {far}"),
            _ => format!(" less {far}"),
        };
        return format!(
            "{} {own} as {part}{} {other}{more}",
            pin.edge.said(),
            to.edge.said()
        );
    }
    let side = match (pin.edge.is_across(), way > 0) {
        (true, true) => "right of",
        (true, false) => "left of",
        (false, true) => "below",
        (false, false) => "above",
    };
    if way == 0 {
        format!("{} {own} on {} {other}", pin.edge.said(), to.edge.said())
    } else {
        format!(
            "{} {own} {far} {side} {} {other}",
            pin.edge.said(),
            to.edge.said()
        )
    }
}

/// `photo p1`, or `photo p1 and p2` for a merged slot.
pub(crate) fn names_of(sketch: &Sketch, item: &Item) -> String {
    let ids: Vec<&str> = item
        .from
        .iter()
        .map(|n| sketch.blocks[*n].id.as_str())
        .collect();
    format!(
        "{} {}",
        sketch.blocks[item.from[0]].kind.word(),
        ids.join(" and ")
    )
}
