//! The fit: from a request to measured proposals, or to what stands in their way.
//!
//! *Discrete choices outside, one convex problem inside.* For each approach that applies: the photo count decides which
//! slots split or merge (`slots`), grids are recounted and prints assigned (`item`), and for a few choices of which side
//! of the fold each block goes to (`search`) a quadratic program over edges and lines is solved (`model`, `program`).
//! The best is rounded to the ruler line by line (`ruler`), cut at the fold and named (`assemble`), measured
//! (`measure`) and told in sentences (`notes`).

mod approach;
mod assemble;
mod assign;
mod back;
mod check;
mod choices;
mod conflict;
mod copies;
mod doubled;
mod facing_pages;
mod fold_choice;
mod holds;
mod item;
mod items;
mod matted;
mod measure;
mod model;
mod note;
mod notes;
mod pin;
mod preferences;
mod price;
mod proposal;
mod qp;
mod reason;
mod request;
mod rows;
mod ruler;
mod search;
mod settled;
mod sides;
mod slot;
mod slot_choice;
mod slots;
mod svg;
mod task;
mod why;

pub use crate::photos::{Face, MOST_PHOTOS, Photos, Print};
pub use approach::{Approach, Map};
pub use back::{Back, back};
pub use check::{Fault, faults};
pub use choices::Choices;
pub use conflict::Conflict;
pub use fold_choice::{FoldChoice, FoldWay};
pub use holds::{Holds, Keep, Link, What};
pub use measure::{Group, Kept, Measures, measure};
pub use note::{Broken, Note, SizePair, Way};
pub use pin::{Pin, PinEdge, PinTo};
pub use preferences::{Emphasis, Slack};
pub use proposal::{Outcome, Proposal};
pub use request::{FitDecisions, PhotoDecisions, Request, SketchDecisions};
pub use slot_choice::{SlotChoice, SlotWay};
pub use svg::layout_svg;

use crate::Cancel;
use crate::document::Invalid;
use crate::geometry::Span;
use crate::layout::LayoutBlock;
use crate::reading::INCH;
use crate::sketch::Sketch;
use model::Scene;
use proposal::Explanation;
use task::Task;

/// Why an approach has no proposal.
enum Unfit {
    /// Its limits can't hold together.
    Conflict(Conflict),
    /// The choices that a refit is to hold are those of another request.
    Unsuited(Invalid),
}

impl Unfit {
    /// A conflict told in other words; choices that don't suit stay what they are.
    fn map(self, rename: impl FnOnce(Conflict) -> Conflict) -> Unfit {
        match self {
            Unfit::Conflict(conflict) => Unfit::Conflict(rename(conflict)),
            unsuited => unsuited,
        }
    }
}

/// Fits a request by every approach that applies (or the one asked for), best first.
pub fn fit(request: &Request) -> Outcome {
    fit_while(request, &Cancel::default()).expect("nobody cancels it")
}

/// Fits a request for as long as somebody waits for it; `None` once it has been cancelled.
pub fn fit_while(request: &Request, cancel: &Cancel) -> Option<Outcome> {
    let outcome = fit_by_all(request, cancel);
    // What was found after that was not looked for to the end.
    (!cancel.is_cancelled()).then_some(outcome)
}

fn fit_by_all(asked: &Request, cancel: &Cancel) -> Outcome {
    let (request, sketch) = &matted::as_fitted(asked);
    let approaches = match request.approach {
        Some(one) => vec![one],
        None => Approach::that_apply(sketch.canvas.pages, request.target.pages),
    };
    let mut proposals: Vec<Proposal> = Vec::new();
    let mut conflict = None;
    for found in each_at_once(&approaches, |approach| {
        fit_by(request, sketch, approach, None, cancel)
    }) {
        match found {
            Ok(proposal) => proposals.push(proposal),
            Err(Unfit::Conflict(found)) => conflict = conflict.or(Some(found)),
            Err(Unfit::Unsuited(_)) => {}
        }
    }
    rank(&mut proposals, matches!(request.photos, Photos::Prints(_)));
    proposals.extend(emphasised(request, sketch, &proposals, cancel));
    once(&mut proposals);
    let proposals: Vec<Proposal> = proposals
        .into_iter()
        .map(|p| p.without_added(asked, (request, sketch)))
        .collect();
    match conflict {
        Some(conflict) if proposals.is_empty() => Outcome::Conflict(conflict),
        _ => Outcome::Proposals(proposals),
    }
}

/// The fit for each of several ways, in their order whichever is done first: they have nothing to do with each other.
fn each_at_once<W: Copy + Sync, T: Send>(ways: &[W], fit: impl Fn(W) -> T + Sync) -> Vec<T> {
    let Some((first, rest)) = ways.split_first() else {
        return Vec::new();
    };
    std::thread::scope(|scope| {
        let others: Vec<_> = rest.iter().map(|a| scope.spawn(|| fit(*a))).collect();
        let mut found = vec![fit(*first)];
        found.extend(others.into_iter().map(|other| {
            other
                .join()
                .unwrap_or_else(|panic| std::panic::resume_unwind(panic))
        }));
        found
    })
}

/// Scales further apart than this let positions and proportions not both hold.
const SHAPE_CHANGES: f64 = 1.25;
/// Proposals whose blocks all lie within this of another's, in ticks, are that one again: 1/16 in.
const ALIKE: f64 = INCH / 16.0;

/// Where the page's shape changes too much for both, a fit by its scale with positions first, and one with proportions first.
fn emphasised(
    request: &Request,
    sketch: &Sketch,
    found: &[Proposal],
    cancel: &Cancel,
) -> Vec<Proposal> {
    let Some(balanced) = found.iter().find(|p| p.approach == Approach::Scale) else {
        return Vec::new();
    };
    let map = Map::new(Approach::Scale, sketch.canvas, request.target);
    if request.approach.is_some()
        || request.emphasis.is_some()
        || map.most() < SHAPE_CHANGES * map.least()
    {
        return Vec::new();
    }
    let by = |emphasis| {
        let request = Request {
            emphasis: Some(emphasis),
            ..request.clone()
        };
        let proposal = fit_by(&request, sketch, Approach::Scale, None, cancel).ok()?;
        // What she did not ask for comes after what holds both as well as can be.
        Some(Proposal {
            score: proposal.score.min(balanced.score - 0.1).max(0.0),
            ..proposal
        })
    };
    each_at_once(&[Emphasis::Positions, Emphasis::Proportions], by)
        .into_iter()
        .flatten()
        .collect()
}

/// Near-equal proposals are shown once, the better one.
fn once(proposals: &mut Vec<Proposal>) {
    let near = |a: f64, b: f64| (a - b).abs() <= ALIKE;
    let alike = |a: &Proposal, b: &Proposal| {
        let (a, b) = (&a.layout.blocks, &b.layout.blocks);
        let same = |(a, b): (&LayoutBlock, &LayoutBlock)| {
            let (s, t) = (a.extent(), b.extent());
            a.from == b.from
                && a.block.kind == b.block.kind
                && near(s.l, t.l)
                && near(s.t, t.t)
                && near(s.r, t.r)
                && near(s.b, t.b)
        };
        a.len() == b.len() && a.iter().zip(b).all(same)
    };
    let mut kept: Vec<Proposal> = Vec::new();
    for proposal in std::mem::take(proposals) {
        if !kept.iter().any(|k| alike(k, &proposal)) {
            kept.push(proposal);
        }
    }
    *proposals = kept;
}

/// Fits again with the choices of an earlier proposal held: one program, for a pin that is being moved.
///
/// # Errors
/// What the choices name that the request does not have: they are those of another one.
pub fn refit(asked: &Request, choices: &Choices) -> Result<Outcome, Invalid> {
    let (request, sketch) = &matted::as_fitted(asked);
    let applying = Approach::that_apply(sketch.canvas.pages, request.target.pages);
    if !applying.contains(&choices.approach) {
        let names: Vec<&str> = applying.iter().map(|a| a.name()).collect();
        return Err(Invalid::one(
            "approach",
            format!("“{}”", choices.approach.name()),
            names.join(", "),
        ));
    }
    match fit_by(
        request,
        sketch,
        choices.approach,
        Some(choices),
        &Cancel::default(),
    ) {
        Ok(proposal) => Ok(Outcome::Proposals(vec![
            proposal.without_added(asked, (request, sketch)),
        ])),
        Err(Unfit::Conflict(conflict)) => Ok(Outcome::Conflict(conflict)),
        Err(Unfit::Unsuited(invalid)) => Err(invalid),
    }
}

/// From this drift of one block on, a sketch taken as a whole has lost its balance: a wide photo that had to leave the fold took the page
/// along, and half of the spread stays empty.
const UNBALANCED: f64 = 0.15;
/// Beyond this mean, or this of one block, or this change of the slots' shape (mean |ln| of w:h), it has lost more than saying the sketch
/// again would.
const FALLEN: (f64, f64, f64) = (0.05, 0.18, 0.25);

/// So many of what touched must still touch.
const TOUCHING: f64 = 0.67;

/// So many of a way's photo slots may be left without a photo.
const EMPTIED: f64 = 0.5;

/// Best first. What says the sketch again, or leaves half of it out, comes after the ways that take the sketch as a whole, unless those
/// lost their balance; what fell apart comes last. Where prints are listed, slots take on their shapes: that is no loss.
fn rank(proposals: &mut [Proposal], listed: bool) {
    let fell = |p: &Proposal| {
        let m = &p.measures;
        m.drift_mean > FALLEN.0
            || m.drift_max > FALLEN.1
            || !listed && m.slot_shape > FALLEN.2
            || m.contacts.share() < TOUCHING
    };
    let place = |p: &Proposal| {
        let most = p.measures.drift_max;
        match p.approach.takes_all() {
            true if p.approach == Approach::Stretch && fell(p) => 2,
            // Twice as many slots and fewer photos: most of both pages would be writing space.
            false if p.measures.emptied > EMPTIED => 2,
            true if most <= UNBALANCED => 0,
            _ => 1,
        }
    };
    let mut least = f64::INFINITY;
    for at in 0..3 {
        for proposal in proposals.iter_mut().filter(|p| place(p) == at) {
            proposal.score = proposal.score.min(least - 0.1).max(0.0);
        }
        least = proposals
            .iter()
            .filter(|p| place(p) <= at)
            .map(|p| p.score)
            .fold(f64::INFINITY, f64::min);
    }
    proposals.sort_by(|a, b| place(a).cmp(&place(b)).then(b.score.total_cmp(&a.score)));
}

/// Fits by one approach: at once, or by way of the sketch that it makes first.
fn fit_by(
    request: &Request,
    sketch: &Sketch,
    approach: Approach,
    held: Option<&Choices>,
    cancel: &Cancel,
) -> Result<Proposal, Unfit> {
    let derived = match copies::derived(request, sketch, approach) {
        None => return fit_one(&Task::of(request), sketch, approach, held, cancel),
        Some(derived) => derived.map_err(Unfit::Conflict)?,
    };
    if let Some(page) = facing_pages::one_page(request, approach, &derived) {
        let found = fit_one(
            page.task(),
            &page.task().request.sketch,
            Approach::Scale,
            held,
            cancel,
        );
        return match found {
            Ok(proposal) => Ok(derived.named(page.both(proposal, &derived), request)),
            Err(unfit) => {
                Err(unfit.map(|conflict| derived.named_conflict(page.with_derived_pins(conflict))))
            }
        };
    }
    let inner = derived.request();
    match fit_one(
        &Task::of(inner),
        &inner.sketch,
        Approach::Scale,
        held,
        cancel,
    ) {
        Ok(proposal) => Ok(derived.named(proposal, request)),
        Err(unfit) => Err(unfit.map(|conflict| derived.named_conflict(conflict))),
    }
}

/// Fits at once: as it is, and where the fold parts what a cluster lay over once more with the cluster doubled.
fn fit_one(
    task: &Task,
    sketch: &Sketch,
    approach: Approach,
    held: Option<&Choices>,
    cancel: &Cancel,
) -> Result<Proposal, Unfit> {
    let request = &task.request;
    let map = Map::new(approach, sketch.canvas, request.target);
    if let Some(choices) = held {
        let doubled = doubled::held(request, sketch, choices);
        return fit_with(
            &doubled::with(task, doubled),
            sketch,
            (approach, map),
            held,
            cancel,
        );
    }
    let plain = fit_with(task, sketch, (approach, map), None, cancel)?;
    let parted = doubled::parted(request, sketch, map, &plain.measures);
    if parted.is_empty() {
        return Ok(plain);
    }
    let doubled = fit_with(
        &doubled::with(task, parted),
        sketch,
        (approach, map),
        None,
        cancel,
    );
    Ok(doubled
        .ok()
        .filter(|d| doubled::is_better(&d.measures, &plain.measures))
        .unwrap_or(plain))
}

fn fit_with(
    task: &Task,
    sketch: &Sketch,
    (approach, map): (Approach, Map),
    held: Option<&Choices>,
    cancel: &Cancel,
) -> Result<Proposal, Unfit> {
    let request = &task.request;
    let Some(items) = items::items(task, sketch, map) else {
        return Err(Unfit::Conflict(Conflict::no_slots(request)));
    };
    let scene = Scene {
        request,
        task,
        sketch,
        map,
        place: in_inches(map.apply(sketch.canvas.span())),
        items: &items,
        cancel,
    };
    let chosen = match held {
        Some(choices) => search::again(&scene, choices).map_err(Unfit::Unsuited)?,
        None => search::choose(&scene),
    };
    let chosen = chosen
        .map_err(|model| Unfit::Conflict(conflict::explain(request, sketch, &items, &model.qp)))?;
    let ticks = ruler::snap(&scene, &chosen.model, &chosen.solved);
    let layout = assemble::layout(&scene, &chosen.model, &ticks);
    let measures = measure(sketch, map, &layout);
    let notes = notes::notes(&scene, &chosen, &layout, &measures);
    let whys = why::of_blocks(&scene, &chosen, &measures);
    let choices = Choices::of(approach, &scene, &chosen.model, chosen.settled());
    Ok(Proposal::new(
        request,
        sketch,
        choices,
        layout,
        measures,
        Explanation {
            notes,
            whys,
            tried: chosen.tried,
        },
    ))
}

fn in_inches(span: Span) -> Span {
    Span {
        l: span.l / INCH,
        t: span.t / INCH,
        r: span.r / INCH,
        b: span.b / INCH,
    }
}
