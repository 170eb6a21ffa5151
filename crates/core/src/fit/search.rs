//! The discrete search around the programme: which side of the fold each block that may not be cut goes to, and which
//! wishes are let go for good once they can't be had.

use super::conflict::{Reason, Wish};
use super::fold_choice::FoldWay;
use super::item::Item;
use super::measure::{Group, Measures, measure_groups};
use super::model::{Model, Scene, Side};
use super::pin::PinEdge;
use super::programme::Solved;
use crate::geometry::{Edge, Span};
use crate::reading::{AGREE, INCH, KEPT, distance, face};
use crate::sketch::Kind;

/// Choices tried are bounded by this over the count of blocks, so that a crowded sketch takes no longer than a plain one.
const EFFORT: usize = 80;
/// A wish that fails by more than this, in inches, is lost: half kept is no better than not kept.
const LOST: f64 = 0.15;
/// What is left of the price of a lost wish.
const LOST_SHARE: f64 = 0.02;
/// A choice without a lost wish and with a demerit below this needs no search: hardly a block has moved.
const GOOD: f64 = 0.3;
/// The share of their price that lines have at first where they are to break early rather than drag the page along.
const EASED: f64 = 0.12;

/// A choice with its solved programme.
pub(crate) struct Chosen {
    pub(crate) sides: Vec<Option<Side>>,
    pub(crate) model: Model,
    /// Its variables, in inches.
    pub(crate) solved: Vec<f64>,
    /// How hard each row of the programme pushes.
    pub(crate) forces: Vec<f64>,
    /// How many choices of sides were solved, and how many more were left out for their number.
    pub(crate) tried: (usize, usize),
    /// Wishes let go of, as places from the end of the programme's rows: pins come and go before them.
    lost: Vec<usize>,
    demerit: f64,
}

/// What a search settled, for a refit to hold to.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Settled {
    pub(super) sides: Vec<Option<Side>>,
    pub(super) lost: Vec<usize>,
    pub(super) solved: Vec<f64>,
}

impl Chosen {
    pub(crate) fn settled(&self) -> Settled {
        Settled { sides: self.sides.clone(), lost: self.lost.clone(), solved: self.solved.clone() }
    }
}

/// Solves with the best choices found, or with what an earlier search settled. The error is the programme whose limits can't hold together.
pub(crate) fn choose(scene: &Scene<'_>, held: Option<&Settled>) -> Result<Chosen, Box<Model>> {
    if let Some(settled) = held.filter(|s| s.sides.len() == scene.items.len()) {
        return again(scene, settled);
    }
    let Some(fold) = scene.fold() else { return attempt(scene, vec![None; scene.items.len()], false, None) };
    let fold = fold * INCH;
    let pinned = pinned_sides(scene, fold);
    let nearest = |tie: Side| {
        let first = (0..scene.items.len()).map(|n| first_side(scene, n, fold, tie).map(|side| pinned[n].unwrap_or(side)));
        settled(scene, first.collect())
    };
    let mut search = Search { scene, tried: Vec::new(), left_out: 0, best: None, left: (EFFORT / scene.items.len().max(1)).clamp(4, 14) };
    for sides in [nearest(Side::Left), nearest(Side::Right)] {
        if !search.is_good() {
            search.try_both(&sides);
        }
    }
    if search.is_good() {
        let tried = (search.tried.len(), 0);
        return search.best.expect("the nearest sides were tried").map(|chosen| Chosen { tried, ..chosen });
    }
    for group in touching(scene) {
        for side in [Side::Left, Side::Right] {
            let mut sides = search.best_sides();
            if group.iter().all(|n| sides[*n] == Some(side)) || group.iter().any(|n| pinned[*n].is_some_and(|p| p != side)) {
                continue;
            }
            group.iter().for_each(|n| sides[*n] = Some(side));
            search.try_both(&settled(scene, sides));
        }
    }
    for (n, to) in toggles(scene, fold).into_iter().filter(|(n, _)| pinned[*n].is_none()) {
        let mut sides = search.best_sides();
        sides[n] = if sides[n] == Some(to) { Some(to.other()) } else { Some(to) };
        search.try_both(&settled(scene, sides));
    }
    let tried = (search.tried.len(), search.left_out);
    search.best.expect("the nearest sides were tried").map(|chosen| Chosen { tried, ..chosen })
}

/// The best of what was tried.
struct Search<'a, 'b> {
    scene: &'a Scene<'b>,
    tried: Vec<Vec<Option<Side>>>,
    best: Option<Result<Chosen, Box<Model>>>,
    /// Solves that may still be made, and choices that came after the last of them.
    left: usize,
    left_out: usize,
}

impl Search<'_, '_> {
    fn best_sides(&self) -> Vec<Option<Side>> {
        match &self.best {
            Some(Ok(best)) => best.sides.clone(),
            _ => self.tried[0].clone(),
        }
    }

    /// Whether what was found leaves nothing to look for.
    fn is_good(&self) -> bool {
        self.best.as_ref().is_some_and(|b| b.as_ref().is_ok_and(|b| b.lost.is_empty() && b.demerit < GOOD))
    }

    /// Tries sides with lines that hold on and with lines that break early.
    fn try_both(&mut self, sides: &[Option<Side>]) {
        if self.tried.iter().any(|t| t == sides) || !self.tried.is_empty() && !in_order(self.scene, sides) {
            return;
        }
        if !self.tried.is_empty() && self.left == 0 {
            self.left_out += 1;
            return;
        }
        self.tried.push(sides.to_vec());
        for eased in [false, true] {
            // Lines that all hold at no cost have nothing to gain from breaking early.
            if eased && self.is_good() {
                continue;
            }
            self.left = self.left.saturating_sub(1);
            let near = self.best.as_ref().and_then(|b| b.as_ref().ok()).map(|b| b.solved.as_slice());
            let found = attempt(self.scene, sides.to_vec(), eased, near);
            let better = match (&found, &self.best) {
                (_, None) | (Ok(_), Some(Err(_))) => true,
                (Ok(new), Some(Ok(old))) => new.demerit < old.demerit - 1e-6,
                (Err(_), _) => false,
            };
            if better {
                self.best = Some(found);
            }
        }
    }
}

/// Solves for one choice of sides; wishes found lost are then let go of, and the rest solved again (reweighting the
/// slack's prices, after Candès, Wakin and Boyd 2008, with two levels in place of a continuum).
/// An earlier solution nearby tells which rows to look at.
fn attempt(scene: &Scene<'_>, sides: Vec<Option<Side>>, eased: bool, near: Option<&[f64]>) -> Result<Chosen, Box<Model>> {
    let mut model = Model::new(scene, &sides);
    if let Some(near) = near.filter(|n| n.len() == model.programme.vars()) {
        model.programme.expected.copy_from_slice(near);
    }
    let full: Vec<Option<f64>> = model.programme.rows.iter().map(|r| r.price).collect();
    if eased {
        for row in model.programme.rows.iter_mut().filter(|r| matches!(r.reason, Reason::Wish(Wish::Line, ..))) {
            row.price = row.price.map(|p| p * EASED);
        }
    }
    let Some(Solved { at: mut solved, mut forces }) = model.programme.solve_with_forces() else { return Err(Box::new(model)) };
    let mut lost = Vec::new();
    let rows = model.programme.rows.len();
    for (n, (row, full)) in model.programme.rows.iter_mut().zip(full).enumerate() {
        let may_go = matches!(row.reason, Reason::Wish(Wish::Line | Wish::Contact | Wish::Equal, ..));
        row.price = full;
        if may_go && row.slack(&solved) > LOST {
            row.price = full.map(|p| p * LOST_SHARE);
            lost.push(rows - n);
        }
    }
    if !lost.is_empty() || eased {
        model.programme.expected.clone_from(&solved);
        if let Some(again) = model.programme.solve_with_forces() {
            (solved, forces) = (again.at, again.forces);
        }
    }
    let demerit = demerit(&preview(scene, &model, &solved)) + 2.0 * oblong(scene, &model, &solved);
    Ok(Chosen { sides, lost, model, solved, forces, tried: (1, 0), demerit })
}

/// One programme, with the sides and the lost wishes of an earlier search, starting from its solution.
fn again(scene: &Scene<'_>, settled: &Settled) -> Result<Chosen, Box<Model>> {
    let mut model = Model::new(scene, &settled.sides);
    if settled.solved.len() == model.programme.vars() {
        model.programme.expected.copy_from_slice(&settled.solved);
    }
    let rows = model.programme.rows.len();
    for from_end in settled.lost.iter().filter(|n| **n <= rows) {
        let row = &mut model.programme.rows[rows - from_end];
        row.price = row.price.map(|p| p * LOST_SHARE);
    }
    match model.programme.solve_with_forces() {
        Some(Solved { at: solved, forces }) => {
            Ok(Chosen { sides: settled.sides.clone(), lost: settled.lost.clone(), model, solved, forces, tried: (1, 0), demerit: 0.0 })
        }
        None => Err(Box::new(model)),
    }
}

/// What a solution would measure, before it is put on the ruler.
fn preview(scene: &Scene<'_>, model: &Model, solved: &[f64]) -> Measures {
    let group = |(item, vars): (&Item, &super::model::Vars)| {
        let [l, t, r, b] = vars.edges.map(|v| solved[v] * INCH);
        let parts = item.cell_runs().len();
        let kind = scene.sketch.blocks[item.from[0]].kind;
        Group { blocks: item.from.clone(), kind, drawn: item.drawn, want: item.want, here: Span { l, t, r, b }, parts }
    };
    measure_groups(scene.sketch, scene.items.iter().zip(&model.vars).map(group).collect(), scene.request.target.span())
}

/// How far the cells of split slots are from a print's shape, beyond 3:2 and on average.
fn oblong(scene: &Scene<'_>, model: &Model, solved: &[f64]) -> f64 {
    let split: Vec<f64> = (scene.items.iter().zip(&model.vars))
        .filter(|(item, _)| item.kind == Kind::Photo && item.is_split() && item.focal.is_none())
        .map(|(_, vars)| {
            let side = |run: &(usize, usize)| (solved[run.1] - solved[run.0]).max(0.01);
            ((side(&vars.cols[0]) / side(&vars.rows[0])).ln().abs() - 1.5_f64.ln()).max(0.0)
        })
        .collect();
    split.iter().sum::<f64>() / split.len().max(1) as f64
}

/// How far a fit is from a good one: drift against lost lines, neighbours, shapes and area, in like units.
fn demerit(m: &Measures) -> f64 {
    let lost = |kept: super::measure::Kept| 1.0 - kept.share();
    m.drift_mean * 25.0
        + m.drift_max * 2.0
        + lost(m.alignments) * 90.0
        + lost(m.relations) * 450.0
        + lost(m.contacts) * 8.0
        + (m.slot_shape - 0.05).max(0.0) * 6.0
        + (0.6 - m.photo_area).max(0.0) * 5.0
}

/// The side where most of it is wanted; `tie` for what is centred on the fold, a split slot astride.
fn first_side(scene: &Scene<'_>, n: usize, fold: f64, tie: Side) -> Option<Side> {
    let item = &scene.items[n];
    if !scene.keeps_off_fold(item) {
        return None;
    }
    if straddles(scene, item, fold) {
        if can_stand_astride(item) {
            return Some(Side::Astride);
        }
        // The fold runs through the gap between faces that is nearest to it.
        let off = |gap: &f64| (item.want.l + item.want.w() * gap - fold).abs();
        let gaps = scene.fold_gaps(item);
        if let Some(nearest) = (0..gaps.len()).min_by(|a, b| off(&gaps[*a]).total_cmp(&off(&gaps[*b]))) {
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
fn pinned_sides(scene: &Scene<'_>, fold: f64) -> Vec<Option<Side>> {
    let mut sides = vec![None; scene.items.len()];
    for choice in &scene.request.at_fold {
        let Some(n) = scene.item_of(&choice.block) else { continue };
        sides[n] = match choice.way {
            FoldWay::Left => Some(Side::Left),
            FoldWay::Right => Some(Side::Right),
            FoldWay::Each | FoldWay::Pair => scene.items[n].is_split().then_some(Side::Astride),
        };
    }
    // A photo that is doubled by the choice for its slot.
    for (n, _) in scene.items.iter().enumerate().filter(|(_, i)| i.each) {
        sides[n] = Some(Side::Astride);
    }
    for pin in &scene.request.pins {
        let Some(at) = pin.on_page().map(|at| at.ticks() as f64) else { continue };
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
        let Some(mut n) = scene.item_of(&pin.block) else { continue };
        while let Some((framed, _)) = scene.items[n].frames {
            n = framed;
        }
        if !scene.keeps_off_fold(&scene.items[n]) || !scene.fold_gaps(&scene.items[n]).is_empty() {
            continue;
        }
        sides[n] = Some(side);
        for (m, item) in scene.items.iter().enumerate().filter(|(m, _)| *m != n) {
            let (own, other) = (scene.items[n].drawn, item.drawn);
            let beyond = if side == Side::Left { distance(other, own, true) } else { distance(own, other, true) };
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
fn settled(scene: &Scene<'_>, mut sides: Vec<Option<Side>>) -> Vec<Option<Side>> {
    let sent: Vec<usize> = scene.request.at_fold.iter().filter_map(|c| scene.item_of(&c.block)).collect();
    for _ in 0..3 {
        for (n, item) in scene.items.iter().enumerate() {
            let leader = item.frames.map(|(f, _)| f).or(item.host.filter(|h| item.kind != Kind::Mat && !sent.contains(&n) && sits_on(scene, n, *h)));
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
fn touching(scene: &Scene<'_>) -> Vec<Vec<usize>> {
    let whole = |n: &usize| scene.keeps_off_fold(&scene.items[*n]) && !matches!(scene.items[*n].kind, Kind::Cluster | Kind::Accent);
    let touch = |a: usize, b: usize| {
        let (a, b) = (scene.items[a].drawn, scene.items[b].drawn);
        [true, false].into_iter().any(|x| face(a, b, x) && (distance(a, b, x).abs() <= AGREE || distance(b, a, x).abs() <= AGREE))
    };
    let mut groups: Vec<Vec<usize>> = Vec::new();
    for n in (0..scene.items.len()).filter(whole) {
        let (joined, mut apart): (Vec<_>, Vec<_>) = groups.into_iter().partition(|g| g.iter().any(|m| touch(n, *m)));
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
fn toggles(scene: &Scene<'_>, fold: f64) -> Vec<(usize, Side)> {
    let mut found: Vec<(usize, Side)> = Vec::new();
    for (n, item) in scene.items.iter().enumerate() {
        // Where the fold may run through a photo, any gap between its faces and either page.
        let gaps = scene.fold_gaps(item).len();
        if gaps > 0 {
            found.extend((0..gaps).map(|gap| (n, Side::Through(gap as u8))).chain([(n, Side::Left), (n, Side::Right)]));
            continue;
        }
        if item.frames.is_none() && scene.keeps_off_fold(item) && straddles(scene, item, fold) && !matches!(item.kind, Kind::Cluster | Kind::Accent) {
            // What stands astride tries its nearer page; what has a page, the other one.
            let to_left = (item.want.cx() < fold) == can_stand_astride(item);
            found.push((n, if to_left { Side::Left } else { Side::Right }));
        }
    }
    found.sort_by(|a, b| (scene.items[a.0].want.cx() - fold).abs().total_cmp(&(scene.items[b.0].want.cx() - fold).abs()).then(a.0.cmp(&b.0)));
    found
}

/// No block on the right page is left of one on the left page in the sketch.
fn in_order(scene: &Scene<'_>, sides: &[Option<Side>]) -> bool {
    let on = |side: Side| (0..sides.len()).filter(move |n| sides[*n] == Some(side));
    on(Side::Right).all(|r| on(Side::Left).all(|l| distance(scene.items[r].drawn, scene.items[l].drawn, true) < -KEPT))
}
