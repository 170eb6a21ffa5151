//! What is done before anything lies on the page: printing, cutting, edges, mats, writing, the hidden middle.

use super::graph::{Draft, overlap, within};
use super::step::{Caution, Doing, Reason, Step};
use crate::layout::LayoutBlock;
use crate::photos::LayerEdge;
use crate::sketch::Kind;

/// Minutes.
const PRINT: u32 = 5;
const CUT_A_PIECE: u32 = 2;
const MOUNT: u32 = 3;
const ROUGHEN: u32 = 3;
const WRITE: u32 = 10;
const MIDDLE: u32 = 5;

/// What pieces of paper are, which somebody has to cut.
pub(super) fn is_cut(block: &LayoutBlock) -> bool {
    matches!(
        block.block.kind,
        Kind::Mat | Kind::Paper | Kind::Strip | Kind::Grid | Kind::Ring
    )
}

pub(super) fn steps(draft: &mut Draft<'_>) {
    let blocks = draft.blocks();
    let print = draft.making.prints.then(|| {
        let text = "Print the photos and cut them out".to_owned();
        draft.add(Step::new("print".to_owned(), Doing::Print, text, PRINT).caution(Caution::Blade))
    });
    let pieces: Vec<&LayoutBlock> = blocks.iter().filter(|b| is_cut(b)).collect();
    let cut = (draft.making.has_papers && !pieces.is_empty()).then(|| {
        let minutes = CUT_A_PIECE * pieces.len() as u32;
        let text = "Cut the papers, by the plan of the Cut station".to_owned();
        let step = Step::new("cut".to_owned(), Doing::Cut, text, minutes);
        draft.add(step.caution(Caution::Blade))
    });
    for block in blocks {
        worked_loose(draft, block);
    }
    mats(draft);
    middles(draft, cut);
    for n in 0..draft.steps.len() {
        let works_on = |kinds: fn(&LayoutBlock) -> bool| {
            let step = &draft.steps[n];
            let on = blocks.iter().filter(|b| step.on.contains(&b.block.id));
            step.doing != Doing::Write && on.into_iter().any(kinds)
        };
        let (photo, paper) = (works_on(|b| b.block.kind == Kind::Photo), works_on(is_cut));
        if let (Some(print), true) = (print, photo) {
            draft.before(print, n, Reason::PrintedFirst);
        }
        if let (Some(cut), true) = (cut, paper) {
            draft.before(cut, n, Reason::CutFirst);
        }
    }
}

/// Edges and writing, done while a piece is loose.
fn worked_loose(draft: &mut Draft<'_>, block: &LayoutBlock) {
    let id = block.block.id.as_str();
    let edge = LayerEdge::of(&block.block);
    if edge != LayerEdge::Cut {
        let how = if edge == LayerEdge::Torn {
            format!("Tear the edges of {id}")
        } else {
            format!("Roughen the edges of {id}")
        };
        let step = Step::new(format!("roughen {id}"), Doing::Roughen, how, ROUGHEN);
        draft.add(step.on(&[id]));
    }
    if block.block.kind == Kind::Journal {
        let text = format!("Write on {id}, while it is loose");
        let step = Step::new(format!("write {id}"), Doing::Write, text, WRITE);
        draft.add(
            step.on(&[id])
                .hint("The Words station counts the lines and keeps room for the date."),
        );
    }
}

/// What lies on a mat is glued to it before the mat goes down.
fn mats(draft: &mut Draft<'_>) {
    let blocks = draft.blocks();
    for (n, inner) in blocks.iter().enumerate() {
        if !matches!(inner.block.kind, Kind::Photo | Kind::Mat) {
            continue;
        }
        let Some(mat) = mat_of(blocks, n) else {
            continue;
        };
        let (id, on) = (inner.block.id.as_str(), mat.block.id.as_str());
        let text = format!("Glue {id} onto its mat {on}");
        let step = Step::new(format!("mount {id}"), Doing::Mount, text, MOUNT).fixes(id);
        let mut step = step.hint("Measure its border on all four sides before you press.");
        step.on.push(on.to_owned());
        draft.add(step);
    }
    // What is mounted on a layer goes down before the layer is mounted on the next.
    for inner in draft.all(Doing::Mount) {
        for outer in draft.all(Doing::Mount) {
            let carries = draft.steps[inner].on.last() == draft.steps[outer].fixes.first();
            if carries {
                draft.before(inner, outer, Reason::MatFirst);
            }
        }
    }
    for roughen in draft.all(Doing::Roughen) {
        let edged = draft.steps[roughen].on[0].clone();
        if let Some(mount) = draft.fixing(&edged) {
            draft.before(roughen, mount, Reason::RoughenedLoose);
        }
    }
}

/// The mat that a block lies on: the highest below it that holds it all. None where something lies between the two: then the mat goes down first.
pub(super) fn mat_of(blocks: &[LayoutBlock], at: usize) -> Option<&LayoutBlock> {
    let own = &blocks[at];
    let holds = |m: &LayoutBlock| m.block.kind == Kind::Mat && m.page == own.page && within(own, m);
    let mat = (0..at).rev().find(|n| holds(&blocks[*n]))?;
    let between = blocks[mat + 1..at].iter().any(|b| overlap(b, own));
    (!between).then(|| &blocks[mat])
}

/// The hidden middle of a ground comes out while nothing is glued over it.
fn middles(draft: &mut Draft<'_>, cut: Option<usize>) {
    let pages = draft.making.layout.canvas.pages;
    for (page, gutted) in draft.making.gutted.into_iter().enumerate() {
        if !gutted || page >= usize::from(pages) {
            continue;
        }
        let which = match (pages, page) {
            (1, _) => "the ground",
            (_, 0) => "the left ground",
            _ => "the right ground",
        };
        let text = format!("Cut the hidden middle out of {which}");
        let step = Step::new(format!("middle {page}"), Doing::TakeOutMiddle, text, MIDDLE);
        let step =
            step.no_return("Check that what covers the hole reaches over its edges all round.");
        let middle = draft.add(step.caution(Caution::Blade));
        // The middle is stock for other pieces.
        if let Some(cut) = cut {
            draft.before(middle, cut, Reason::CutFirst);
        }
    }
}

/// Whether a block covers anything of another.
pub(super) fn covers(upper: &LayoutBlock, lower: &LayoutBlock) -> bool {
    upper.page == lower.page && overlap(upper, lower)
}
