//! The discrete search around the program: which side of the fold each block that may not be cut goes to, and which
//! wishes are let go for good once they can't be had.

use super::Choices;
use super::model::{Model, Scene, Side};
use super::price::price;
use super::qp::Solved;
use super::reason::{Reason, Wish};
use super::settled::Settled;
use super::sides::{first_side, in_order, pinned_sides, settled, toggles, touching};
use crate::document::Invalid;
use crate::reading::INCH;

/// Choices tried are bounded by this over the count of blocks, so that a crowded sketch takes no longer than a plain one.
const EFFORT: usize = 80;
/// From so many blocks on a program takes a tenth of a second, and only the nearest sides are tried.
const CROWD: usize = 100;
/// A wish that fails by more than this, in inches, is lost: half kept is no better than not kept.
const LOST: f64 = 0.15;
/// What is left of the penalty of a lost wish.
const LOST_SHARE: f64 = 0.02;
/// A choice without a lost wish and with a price below this needs no search: hardly a block has moved.
const GOOD: f64 = 0.3;
/// The share of their penalty that lines have at first where they are to break early rather than drag the page along.
const EASED: f64 = 0.12;

/// A choice with its solved program.
pub(crate) struct Chosen {
    pub(crate) sides: Vec<Option<Side>>,
    pub(crate) model: Model,
    /// Its variables, in inches.
    pub(crate) solved: Vec<f64>,
    /// How hard each row of the program pushes.
    pub(crate) duals: Vec<f64>,
    /// How many choices of sides were solved, and how many more were left out for their number.
    pub(crate) tried: (usize, usize),
    /// Wishes let go of, as places from the end of the program's rows: pins come and go before them.
    lost: Vec<usize>,
    price: f64,
}

impl Chosen {
    pub(crate) fn settled(&self) -> Settled {
        Settled {
            sides: self.sides.clone(),
            lost: self.lost.clone(),
            solved: self.solved.clone(),
        }
    }
}

/// Solves with the best choices found. The error is the program whose limits can't hold together.
pub(crate) fn choose(scene: &Scene<'_>) -> Result<Chosen, Box<Model>> {
    let Some(fold) = scene.fold() else {
        return attempt(scene, vec![None; scene.items.len()], false, None);
    };
    let fold = fold * INCH;
    let pinned = pinned_sides(scene, fold);
    let nearest = |tie: Side| {
        let first = (0..scene.items.len())
            .map(|n| first_side(scene, n, fold, tie).map(|side| pinned[n].unwrap_or(side)));
        settled(scene, first.collect())
    };
    let mut search = Search {
        scene,
        tried: Vec::new(),
        left_out: 0,
        best: None,
        left: (EFFORT / scene.items.len().max(1))
            .clamp(if scene.items.len() < CROWD { 4 } else { 2 }, 14),
    };
    for sides in [nearest(Side::Left), nearest(Side::Right)] {
        if !search.is_good() {
            search.try_both(&sides);
        }
    }
    if search.is_good() {
        let tried = (search.tried.len(), 0);
        return search
            .best
            .expect("the nearest sides were tried")
            .map(|chosen| Chosen { tried, ..chosen });
    }
    for group in touching(scene) {
        for side in [Side::Left, Side::Right] {
            let mut sides = search.best_sides();
            if group.iter().all(|n| sides[*n] == Some(side))
                || group.iter().any(|n| pinned[*n].is_some_and(|p| p != side))
            {
                continue;
            }
            group.iter().for_each(|n| sides[*n] = Some(side));
            search.try_both(&settled(scene, sides));
        }
    }
    for (n, to) in toggles(scene, fold)
        .into_iter()
        .filter(|(n, _)| pinned[*n].is_none())
    {
        let mut sides = search.best_sides();
        sides[n] = if sides[n] == Some(to) {
            Some(to.other())
        } else {
            Some(to)
        };
        search.try_both(&settled(scene, sides));
    }
    let tried = (search.tried.len(), search.left_out);
    search
        .best
        .expect("the nearest sides were tried")
        .map(|chosen| Chosen { tried, ..chosen })
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
        self.best.as_ref().is_some_and(|b| {
            b.as_ref()
                .is_ok_and(|b| b.lost.is_empty() && b.price < GOOD)
        })
    }

    /// Tries sides with lines that hold on and with lines that break early.
    fn try_both(&mut self, sides: &[Option<Side>]) {
        if !self.tried.is_empty() && self.scene.cancel.is_cancelled()
            || self.tried.iter().any(|t| t == sides)
            || !self.tried.is_empty() && !in_order(self.scene, sides)
        {
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
            let near = self
                .best
                .as_ref()
                .and_then(|b| b.as_ref().ok())
                .map(|b| b.solved.as_slice());
            let found = attempt(self.scene, sides.to_vec(), eased, near);
            let better = match (&found, &self.best) {
                (_, None) | (Ok(_), Some(Err(_))) => true,
                (Ok(new), Some(Ok(old))) => new.price < old.price - 1e-6,
                (Err(_), _) => false,
            };
            if better {
                self.best = Some(found);
            }
        }
    }
}

/// Solves for one choice of sides; wishes found lost are then let go of, and the rest solved again (reweighting the
/// slack's penalties, after Candès, Wakin and Boyd 2008, with two levels in place of a continuum).
/// An earlier solution nearby tells which rows to look at.
fn attempt(
    scene: &Scene<'_>,
    sides: Vec<Option<Side>>,
    eased: bool,
    near: Option<&[f64]>,
) -> Result<Chosen, Box<Model>> {
    let mut model = Model::new(scene, &sides);
    if let Some(near) = near.filter(|n| n.len() == model.qp.vars()) {
        model.qp.expected.copy_from_slice(near);
    }
    let full: Vec<Option<f64>> = model.qp.rows.iter().map(|r| r.penalty).collect();
    if eased {
        for row in model
            .qp
            .rows
            .iter_mut()
            .filter(|r| matches!(r.reason, Reason::Wish(Wish::Line, ..)))
        {
            row.penalty = row.penalty.map(|p| p * EASED);
        }
    }
    let Some(Solved {
        at: mut solved,
        mut duals,
    }) = model.qp.solve_with_duals()
    else {
        return Err(Box::new(model));
    };
    let mut lost = Vec::new();
    let rows = model.qp.rows.len();
    for (n, (row, full)) in model.qp.rows.iter_mut().zip(full).enumerate() {
        let may_go = matches!(
            row.reason,
            Reason::Wish(Wish::Line | Wish::Contact | Wish::Equal, ..)
        );
        row.penalty = full;
        if may_go && row.slack(&solved) > LOST {
            row.penalty = full.map(|p| p * LOST_SHARE);
            lost.push(rows - n);
        }
    }
    if !lost.is_empty() || eased {
        model.qp.expected.clone_from(&solved);
        if let Some(again) = model.qp.solve_with_duals() {
            (solved, duals) = (again.at, again.duals);
        }
    }
    let price = price(scene, &model, &solved);
    Ok(Chosen {
        sides,
        lost,
        model,
        solved,
        duals,
        tried: (1, 0),
        price,
    })
}

/// One program, with the sides and the lost wishes of an earlier search, starting from its solution. The inner error is the program
/// whose limits can't hold together.
///
/// # Errors
/// What of the choices does not suit the request.
pub(crate) fn again(
    scene: &Scene<'_>,
    choices: &Choices,
) -> Result<Result<Chosen, Box<Model>>, Invalid> {
    let sides = choices.sides_on(scene)?;
    let mut model = Model::new(scene, &sides);
    let lost = choices.lost_on(scene, &model)?;
    if choices.solved().len() == model.qp.vars() {
        model.qp.expected.copy_from_slice(choices.solved());
    }
    let rows = model.qp.rows.len();
    for from_end in &lost {
        let row = &mut model.qp.rows[rows - from_end];
        row.penalty = row.penalty.map(|p| p * LOST_SHARE);
    }
    Ok(match model.qp.solve_with_duals() {
        Some(Solved { at: solved, duals }) => Ok(Chosen {
            sides,
            lost,
            model,
            solved,
            duals,
            tried: (1, 0),
            price: 0.0,
        }),
        None => Err(Box::new(model)),
    })
}
