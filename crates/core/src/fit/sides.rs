//! Which side of the fold each block may go to, and which other sides are worth trying.

use super::fold_choice::FoldWay;
use super::item::Item;
use super::model::{Scene, Side};
use super::pin::PinEdge;
use crate::geometry::{Axis, Edge};
use crate::reading::{AGREE, KEPT, distance, face};
use crate::sketch::Kind;

/// The side where most of it is wanted; `tie` for what is centred on the fold, a split slot astride.
pub(super) fn first_side(scene: &Scene<'_>, n: usize, fold: f64, tie: Side) -> Option<Side> {
    let item = &scene.items[n];
    if !scene.keeps_off_fold(item) {
        return None;
    }
    if straddles(scene, item, fold) {
        if can_stand_astride(item) {
            return Some(Side::Astride);
        }
        // The fold runs through the gap between faces or words that is nearest to it.
        let off = |gap: &f64| (item.want.l + item.want.w() * gap - fold).abs();
        let gaps = scene.fold_gaps(item);
        if let Some(nearest) =
            (0..gaps.len()).min_by(|a, b| off(&gaps[*a]).total_cmp(&off(&gaps[*b])))
        {
            return Some(Side::Through(nearest as u8));
        }
    }
    let off = item.want.cx() - fold;
    Some(if off.abs() <= AGREE {
        tie
    } else if off < 0.0 {
        Side::Left
    } else {
        Side::Right
    })
}

/// The pages that she chose, and those that pinned left and right edges call for: of the pinned blocks, of what they frame, and of everything
/// that lies beyond them.
pub(super) fn pinned_sides(scene: &Scene<'_>, fold: f64) -> Vec<Option<Side>> {
    let mut sides = vec![None; scene.items.len()];
    for choice in &scene.request.at_fold {
        let Some(n) = scene.item_of(&choice.block) else {
            continue;
        };
        sides[n] = match choice.way {
            FoldWay::Left => Some(Side::Left),
            FoldWay::Right => Some(Side::Right),
            FoldWay::Each | FoldWay::Pair => scene.items[n].is_split().then_some(Side::Astride),
            FoldWay::Across => None,
        };
    }
    // A photo that is doubled by the choice for its slot.
    for (n, _) in scene.items.iter().enumerate().filter(|(_, i)| i.each) {
        sides[n] = Some(Side::Astride);
    }
    for pin in &scene.request.pins {
        let Some(at) = pin.on_page().map(|at| at.ticks() as f64) else {
            continue;
        };
        let side = match pin.edge {
            PinEdge::Edge(Edge::Left) => {
                if at < fold {
                    Side::Left
                } else {
                    Side::Right
                }
            }
            PinEdge::Edge(Edge::Right) => {
                if at > fold {
                    Side::Right
                } else {
                    Side::Left
                }
            }
            _ => continue,
        };
        let Some(mut n) = scene.item_of(&pin.block) else {
            continue;
        };
        while let Some((framed, _)) = scene.items[n].frames {
            n = framed;
        }
        if !scene.keeps_off_fold(&scene.items[n]) || !scene.fold_gaps(&scene.items[n]).is_empty() {
            continue;
        }
        sides[n] = Some(side);
        for (m, item) in scene.items.iter().enumerate().filter(|(m, _)| *m != n) {
            let (own, other) = (scene.items[n].drawn, item.drawn);
            let beyond = if side == Side::Left {
                distance(other, own, Axis::X)
            } else {
                distance(own, other, Axis::X)
            };
            if beyond >= -KEPT && sides[m].is_none() {
                sides[m] = Some(side);
            }
        }
    }
    sides
}

/// A slot split into an even number of columns may have half of them on either page.
fn can_stand_astride(item: &Item) -> bool {
    item.is_split() && item.focal.is_none() && item.cells.0.is_multiple_of(2) && item.turn == 0.0
}

/// Whether it reaches over the fold, at the smaller of its wanted and its own grown width.
fn straddles(scene: &Scene<'_>, item: &Item, fold: f64) -> bool {
    item.straddles(scene.map, fold, scene.request.fold_guard.ticks() as f64)
}

/// Mats go with what they frame, clusters and accents with what they sit on, unless she sent them elsewhere.
pub(super) fn settled(scene: &Scene<'_>, mut sides: Vec<Option<Side>>) -> Vec<Option<Side>> {
    let sent: Vec<usize> = scene
        .request
        .at_fold
        .iter()
        .filter_map(|c| scene.item_of(&c.block))
        .collect();
    for _ in 0..3 {
        for (n, item) in scene.items.iter().enumerate() {
            let leader = item.frames.map(|(f, _)| f).or(item
                .host
                .filter(|h| item.kind != Kind::Mat && !sent.contains(&n) && sits_on(scene, n, *h)));
            if let Some(leader) = leader {
                let side = sides[leader].filter(|s| s.is_page());
                if item.frames.is_some() || side.is_some() {
                    sides[n] = side;
                }
            }
        }
    }
    sides
}

/// What may not be cut and touches, in groups of two or more: the fold would come between them, so all of a group on one
/// page is worth trying.
pub(super) fn touching(scene: &Scene<'_>) -> Vec<Vec<usize>> {
    let whole = |n: &usize| {
        scene.keeps_off_fold(&scene.items[*n])
            && !matches!(scene.items[*n].kind, Kind::Cluster | Kind::Accent)
    };
    let touch = |a: usize, b: usize| {
        let (a, b) = (scene.items[a].drawn, scene.items[b].drawn);
        Axis::BOTH.into_iter().any(|axis| {
            face(a, b, axis)
                && (distance(a, b, axis).abs() <= AGREE || distance(b, a, axis).abs() <= AGREE)
        })
    };
    let mut groups: Vec<Vec<usize>> = Vec::new();
    for n in (0..scene.items.len()).filter(whole) {
        let (joined, mut apart): (Vec<_>, Vec<_>) = groups
            .into_iter()
            .partition(|g| g.iter().any(|m| touch(n, *m)));
        let mut group: Vec<usize> = joined.into_iter().flatten().collect();
        group.push(n);
        apart.push(group);
        groups = apart;
    }
    groups.retain(|g| g.len() > 1);
    groups
}

fn sits_on(scene: &Scene<'_>, n: usize, host: usize) -> bool {
    scene.items[n].drawn.overlaps(scene.items[host].drawn, KEPT)
}

/// What is worth trying on the other side, nearest to the fold first.
pub(super) fn toggles(scene: &Scene<'_>, fold: f64) -> Vec<(usize, Side)> {
    let mut found: Vec<(usize, Side)> = Vec::new();
    for (n, item) in scene.items.iter().enumerate() {
        if scene.runs_across(item).is_some() && !straddles(scene, item, fold) {
            continue;
        }
        // Where the fold may run through a block, any gap between its faces or words, and either page.
        let gaps = scene.fold_gaps(item).len();
        if gaps > 0 {
            found.extend((0..gaps).map(|gap| (n, Side::Through(gap as u8))));
            // A title that she lets run across stays across.
            if scene.runs_across(item).is_none() {
                found.extend([(n, Side::Left), (n, Side::Right)]);
            }
            continue;
        }
        if item.frames.is_none()
            && scene.keeps_off_fold(item)
            && straddles(scene, item, fold)
            && !matches!(item.kind, Kind::Cluster | Kind::Accent)
        {
            // What stands astride tries its nearer page; what has a page, the other one.
            let to_left = (item.want.cx() < fold) == can_stand_astride(item);
            found.push((n, if to_left { Side::Left } else { Side::Right }));
        }
    }
    found.sort_by(|a, b| {
        (scene.items[a.0].want.cx() - fold)
            .abs()
            .total_cmp(&(scene.items[b.0].want.cx() - fold).abs())
            .then(a.0.cmp(&b.0))
    });
    found
}

/// No block on the right page is left of one on the left page in the sketch.
pub(super) fn in_order(scene: &Scene<'_>, sides: &[Option<Side>]) -> bool {
    let on = |side: Side| (0..sides.len()).filter(move |n| sides[*n] == Some(side));
    on(Side::Right).all(|r| {
        on(Side::Left)
            .all(|l| distance(scene.items[r].drawn, scene.items[l].drawn, Axis::X) < -KEPT)
    })
}
