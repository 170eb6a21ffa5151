//! What goes down on the page, bottom to top; what is tucked under what lies there; what sits on it; the needle before what it must not pierce.

use super::decisions::{School, Technique};
use super::graph::{Draft, is_painted, overlap, within};
use super::prepare::{covers, mat_of};
use super::step::{Caution, Doing, Reason, Step};
use crate::layout::LayoutBlock;
use crate::sketch::Kind;
use std::collections::BTreeSet;

/// Minutes.
const LAY_OUT: u32 = 10;
const GLUE: u32 = 3;
const A_UNIT: u32 = 1;
const TUCK: u32 = 2;
const CLUSTER: u32 = 8;
const STITCH: u32 = 15;
const SECONDS_A_LETTER: usize = 40;

pub(super) fn steps(draft: &mut Draft<'_>) {
    let loose: Vec<usize> = (0..draft.steps.len()).collect();
    let blocks = draft.blocks();
    let mut down = Vec::new();
    for (n, block) in blocks.iter().enumerate() {
        if is_painted(block) || draft.fixing(&block.block.id).is_some() {
            continue;
        }
        let step = laid_down(draft, n);
        down.push(draft.add(step));
    }
    from_bottom_to_top(draft);
    for at in &down {
        after_what_is_loose(draft, &loose, *at);
    }
    stitched(draft);
    if draft.making.decisions.school == School::LayOutFirst && !down.is_empty() {
        let text = "Lay all out dry, and hold it against the measurement sheet".to_owned();
        let step = Step::new("lay out".to_owned(), Doing::LayOut, text, LAY_OUT);
        let lay_out = draft.add(step.hint("Mark one corner lightly as your anchor."));
        // Paint that comes over something glued, or over such paint, comes later.
        let over_glue = after_any(draft, &down);
        let first: Vec<usize> = loose
            .into_iter()
            .filter(|n| draft.steps[*n].doing != Doing::Write && !over_glue.contains(n))
            .collect();
        for before in first {
            let reason = match draft.steps[before].doing {
                Doing::Paint | Doing::Gesso => Reason::PaintDries,
                Doing::Mount => Reason::MatFirst,
                Doing::TakeOutMiddle => Reason::MiddleOut,
                Doing::Print => Reason::PrintedFirst,
                _ => Reason::CutFirst,
            };
            draft.before(before, lay_out, reason);
        }
        for at in down {
            draft.before(lay_out, at, Reason::MeasuredFirst);
        }
        for stitch in draft.all(Doing::Stitch) {
            draft.before(lay_out, stitch, Reason::MeasuredFirst);
        }
    }
}

/// All steps that have to come after any of these, however far.
fn after_any(draft: &Draft<'_>, steps: &[usize]) -> BTreeSet<usize> {
    let mut after = BTreeSet::new();
    let mut open = steps.to_vec();
    while let Some(n) = open.pop() {
        let next = draft.edges.iter().filter(|e| e.before == n);
        open.extend(next.map(|e| e.after).filter(|a| after.insert(*a)));
    }
    after
}

/// The step by which a block comes onto the page.
fn laid_down(draft: &Draft<'_>, at: usize) -> Step {
    let blocks = draft.blocks();
    let block = &blocks[at];
    let id = block.block.id.as_str();
    let place = draft.place(block);
    match block.block.kind {
        Kind::Title => {
            let letters = draft
                .making
                .title
                .map_or(8, |t| t.chars().filter(|c| !c.is_whitespace()).count());
            let minutes = (letters * SECONDS_A_LETTER).div_ceil(60).max(4) as u32;
            let step = Step::new(
                format!("title {id}"),
                Doing::SetTitle,
                format!("Lay the title on {id}: {place}"),
                minutes,
            );
            step.fixes(id)
                .hint("In the order of laying that the Words station gives.")
        }
        Kind::Cluster => {
            let step = Step::new(
                format!("cluster {id}"),
                Doing::Place,
                format!("Lay and glue cluster {id}: {place}"),
                CLUSTER,
            );
            step.fixes(id).caution(Caution::SmallParts)
        }
        Kind::Accent if tucked_under(blocks, at).is_some() => {
            let step = Step::new(
                format!("tuck {id}"),
                Doing::Tuck,
                format!("Tuck {id} in: {place}"),
                TUCK,
            );
            step.fixes(id)
        }
        _ => {
            let units = block.block.grid.map_or(0, |g| g.cols * g.rows)
                + block.block.ring.map_or(0, |r| r.count);
            let mut step = Step::new(
                format!("glue {id}"),
                Doing::Glue,
                format!("Glue {id} down: {place}"),
                GLUE + A_UNIT * units,
            )
            .fixes(id);
            let tucked = (0..at)
                .filter(|t| tucked_under(blocks, *t).is_some() && overlap(block, &blocks[*t]));
            let waiting: Vec<&str> = tucked.map(|t| blocks[t].block.id.as_str()).collect();
            if !waiting.is_empty() {
                let waiting = waiting.join(" and ");
                step = step.hint(&format!("Leave the side open where {waiting} goes under."));
            }
            step
        }
    }
}

/// What a tag, label or banner is tucked under: the lowest that lies over part of it. None where something lies over it that can't be left open.
fn tucked_under(blocks: &[LayoutBlock], at: usize) -> Option<&LayoutBlock> {
    let block = &blocks[at];
    if block.block.kind != Kind::Accent {
        return None;
    }
    let mut over = blocks[at + 1..]
        .iter()
        .filter(|upper| overlap(upper, block));
    let lowest = over.clone().next();
    let opens = |upper: &LayoutBlock| {
        let kind = matches!(
            upper.block.kind,
            Kind::Photo | Kind::Mat | Kind::Paper | Kind::Journal
        );
        kind && covers(upper, block) && !within(block, upper)
    };
    lowest.filter(|_| over.all(opens))
}

/// What overlaps goes down from the bottom to the top, but for what is tucked under later.
fn from_bottom_to_top(draft: &mut Draft<'_>) {
    let blocks = draft.blocks();
    for (u, upper) in blocks.iter().enumerate() {
        let Some(after) = fixed_with(draft, u) else {
            continue;
        };
        for (l, lower) in blocks[..u].iter().enumerate() {
            let Some(before) = fixed_with(draft, l) else {
                continue;
            };
            if !overlap(upper, lower) {
                continue;
            }
            if tucked_under(blocks, l).is_some() {
                draft.before(after, before, Reason::TuckedUnder);
                continue;
            }
            let sits = matches!(upper.block.kind, Kind::Cluster | Kind::Accent | Kind::Title);
            let reason = if is_painted(lower) {
                Reason::PaintDries
            } else if sits {
                Reason::SitsOn
            } else {
                Reason::LiesUnder
            };
            draft.before(before, after, reason);
        }
    }
    for gesso in draft.all(Doing::Gesso) {
        for at in 0..draft.steps.len() {
            if !draft.steps[at].fixes.is_empty() && draft.steps[at].doing != Doing::Mount {
                draft.before(gesso, at, Reason::Primed);
            }
        }
    }
}

/// The step by which a block reaches the page: its own, or that of the mat that carries it there.
fn fixed_with(draft: &Draft<'_>, at: usize) -> Option<usize> {
    let blocks = draft.blocks();
    let step = draft.fixing(&blocks[at].block.id)?;
    if draft.steps[step].doing != Doing::Mount {
        return Some(step);
    }
    let mat = mat_of(blocks, at)?;
    let carrier = blocks.iter().position(|b| b.block.id == mat.block.id)?;
    fixed_with(draft, carrier)
}

/// Mounting, edges, writing and the hidden middle come before what they belong to goes down.
fn after_what_is_loose(draft: &mut Draft<'_>, loose: &[usize], at: usize) {
    let own = draft.steps[at].on.clone();
    let page = |id: &String| {
        draft
            .blocks()
            .iter()
            .find(|b| b.block.id == *id)
            .map(|b| b.page)
    };
    let own_page = own.first().and_then(page);
    for before in loose.iter().copied() {
        let step = &draft.steps[before];
        let shares = step.on.iter().any(|b| own.contains(b));
        let reason = match step.doing {
            Doing::Mount if shares => Reason::MatFirst,
            Doing::Roughen if shares => Reason::RoughenedLoose,
            Doing::Write if shares => Reason::WrittenFlat,
            Doing::TakeOutMiddle if own_page.is_some_and(|p| step.id == format!("middle {p}")) => {
                Reason::MiddleOut
            }
            Doing::Print if goes_with(draft, &own, |k| k == Kind::Photo) => Reason::PrintedFirst,
            Doing::Cut
                if goes_with(draft, &own, |k| {
                    matches!(
                        k,
                        Kind::Mat | Kind::Paper | Kind::Strip | Kind::Grid | Kind::Ring
                    )
                }) =>
            {
                Reason::CutFirst
            }
            _ => continue,
        };
        draft.before(before, at, reason);
    }
}

fn goes_with(draft: &Draft<'_>, blocks: &[String], is: impl Fn(Kind) -> bool) -> bool {
    let all = draft.blocks().iter();
    let mut own = all.filter(|b| blocks.contains(&b.block.id));
    own.any(|b| is(b.block.kind))
}

/// Papers and strips are sewn before anything lies over them that a needle must not pierce.
fn stitched(draft: &mut Draft<'_>) {
    if !draft
        .making
        .decisions
        .techniques
        .contains(&Technique::Stitch)
    {
        return;
    }
    let blocks = draft.blocks();
    let sewn = sewn(blocks);
    let under: Vec<&LayoutBlock> = blocks
        .iter()
        .filter(|b| sewn.contains(&b.block.id.as_str()))
        .collect();
    if under.is_empty() {
        return;
    }
    let ids: Vec<&str> = under.iter().map(|b| b.block.id.as_str()).collect();
    let text = format!("Sew {} down, threads taped behind", ids.join(", "));
    let step = Step::new("stitch".to_owned(), Doing::Stitch, text, STITCH);
    let step = step
        .on(&ids)
        .hint("Pierce the holes first, on foam; keep away from where things are tucked.")
        .no_return("Check the line against the measurement sheet: holes in paper stay.");
    let stitch = draft.add(step.caution(Caution::Needle));
    for lower in under {
        if let Some(glue) = draft.fixing(&lower.block.id) {
            draft.before(glue, stitch, Reason::LiesUnder);
        }
        let place = blocks.iter().position(|b| b.block.id == lower.block.id);
        for u in place.map_or(0..0, |p| p + 1..blocks.len()) {
            let own = blocks[u].block.id.as_str();
            let pierced =
                !sewn.contains(&own) && !is_painted(&blocks[u]) && overlap(&blocks[u], lower);
            if let (true, Some(later)) = (pierced, fixed_with(draft, u)) {
                draft.before(stitch, later, Reason::NeedleFirst);
            }
        }
    }
}

/// Papers and strips that lie on nothing but the ground, paint, and each other: what else lies under them would be pierced.
fn sewn(blocks: &[LayoutBlock]) -> Vec<&str> {
    let mut flat: Vec<&LayoutBlock> = Vec::new();
    for (n, block) in blocks.iter().enumerate() {
        let mut below = blocks[..n].iter().filter(|b| overlap(b, block));
        let lies_flat = below.all(|b| flat.iter().any(|f| f.block.id == b.block.id));
        let may_be = is_painted(block) || matches!(block.block.kind, Kind::Paper | Kind::Strip);
        if lies_flat && may_be {
            flat.push(block);
        }
    }
    let paper = flat.into_iter().filter(|b| !is_painted(b));
    paper.map(|b| b.block.id.as_str()).collect()
}
