//! Clusters and accents that lay over two blocks which the fold parts: no cluster is cut, so one of the two would lose it. Such a block is tried
//! doubled, once on either page, unless she has said where it goes, pinned it or holds it to something.

use super::Choices;
use super::approach::Map;
use super::fold_choice::{FoldChoice, FoldWay};
use super::item;
use super::measure::{Group, Measures};
use super::request::Request;
use super::task::Task;
use crate::reading::{Relation, holds, relations};
use crate::sketch::{Block, Kind, Sketch};

/// A doubled block may move the others so much further on average, as a share of the canvas.
const WORTH: f64 = 0.005;

/// The blocks of a fit that no longer lie over what they lay over, where that is on the other page.
pub(super) fn parted(
    request: &Request,
    sketch: &Sketch,
    map: Map,
    measures: &Measures,
) -> Vec<String> {
    if request.target.pages != 2 {
        return Vec::new();
    }
    let fold = request.target.page.w.ticks() as f64;
    let at_fold = |g: &Group| {
        item::straddles(
            g.drawn,
            g.want,
            map,
            fold,
            request.fold_guard.ticks() as f64,
        )
    };
    let loses = |g: &Group, other: &Group| {
        let other_page = (g.here.cx() < fold) != (other.here.cx() < fold);
        let over = |r: &Relation| {
            !matches!(
                r,
                Relation::LeftOf | Relation::RightOf | Relation::Above | Relation::Below
            )
        };
        other_page
            && relations(g.drawn, other.drawn)
                .iter()
                .any(|r| over(r) && !holds(*r, g.here, other.here))
    };
    let mut found = Vec::new();
    for (n, group) in measures.groups.iter().enumerate() {
        let block = &sketch.blocks[group.blocks[0]];
        let sent = request.at_fold.iter().any(|c| c.block == block.id)
            || request
                .pins
                .iter()
                .any(|p| p.blocks().any(|id| *id == block.id));
        let is_open = matches!(block.kind, Kind::Cluster | Kind::Accent)
            && !sent
            && request.holds.keep_of(&block.id).is_none();
        let others = measures
            .groups
            .iter()
            .enumerate()
            .filter(|(m, _)| *m != n)
            .map(|(_, other)| other);
        if is_open
            && group.parts == 1
            && at_fold(group)
            && others.into_iter().any(|other| loses(group, other))
        {
            found.push(block.id.clone());
        }
    }
    found
}

/// Those that an earlier search doubled: what she has not sent there and stands astride the fold all the same.
pub(super) fn held(request: &Request, sketch: &Sketch, choices: &Choices) -> Vec<String> {
    let may_be = |b: &&Block| {
        matches!(b.kind, Kind::Cluster | Kind::Accent) && choices.stands_astride(&b.id)
    };
    let ids = sketch.blocks.iter().filter(may_be).map(|b| b.id.clone());
    ids.filter(|id| !request.at_fold.iter().any(|c| c.block == *id))
        .collect()
}

/// The task with blocks doubled.
pub(super) fn with(task: &Task, blocks: Vec<String>) -> Task {
    let mut task = task.clone();
    task.request
        .at_fold
        .extend(blocks.iter().map(|id| FoldChoice {
            block: id.clone(),
            way: FoldWay::Each,
            words: Vec::new(),
        }));
    task.doubled = blocks;
    task
}

/// Whether a fit with doubled blocks is worth it.
pub(super) fn is_better(doubled: &Measures, plain: &Measures) -> bool {
    doubled.relations.share() > plain.relations.share()
        && doubled.alignments.share() >= plain.alignments.share()
        && doubled.contacts.share() >= plain.contacts.share()
        && doubled.drift_mean <= plain.drift_mean + WORTH
}
