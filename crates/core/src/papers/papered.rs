//! What becomes of papers on a layout: each piece with its paper, what shows and what is cut of it, and where it tucks.

use super::decisions::{CutAs, PaperDecisions, PaperSide, PieceChoice};
use super::die_shapes::{BETWEEN_DIES, dies_in};
use super::extras::{Extra, extras};
use super::piecing::{Gutting, Piece, Piecing, is_papered};
use super::slices::slices;
use crate::document::number;
use crate::geometry::{Edge, Size, Span};
use crate::layout::Layout;
use crate::length::{Length, Unit};
use crate::sketch::{Block, Kind, Shape, UnitShape};
use serde_json::{Value, json};
use std::collections::{BTreeMap, BTreeSet};

/// A piece of the page, with what is decided about it.
#[derive(Clone, Debug, PartialEq)]
pub struct PaperedPiece {
    /// The sketch's block and which part of it; none for a ground.
    pub of: Option<(String, usize)>,
    /// `ROW/COLUMN` or `NUMBER` of a unit.
    pub unit: Option<String>,
    /// Which of the pieces of paper it is that a piece is put together from, from 1.
    pub slice: Option<usize>,
    /// What it is, where it is cut beyond those of the page.
    pub extra: Option<Extra>,
    /// Its block's kind; none for a ground.
    pub kind: Option<Kind>,
    /// Its outline; none for a ground.
    pub shape: Option<Shape>,
    /// Its paper, where one is chosen.
    pub paper: Option<PaperSide>,
    /// What shows, what is cut.
    pub piece: Piece,
    /// Under which layout blocks it tucks, and how far.
    pub under: Vec<(Edge, String)>,
    /// Sides that end at the page's edge.
    pub at_page: Vec<Edge>,
    /// Whether what is cut is all of its block, or of its unit.
    pub is_all_cut: bool,
    /// Shapes of a die that are cut out of its hidden middle, in place of all of it.
    pub dies: Option<DiesInMiddle>,
}

/// Shapes of a die in a hidden middle.
#[derive(Clone, Debug, PartialEq)]
pub struct DiesInMiddle {
    /// The die's id in the stash.
    pub tool: String,
    /// What it cuts.
    pub size: Size,
    /// What stays between two of them, in ticks.
    pub bar: f64,
    /// Where they lie, measured as the pieces are.
    pub places: Vec<Span>,
}

impl PaperedPiece {
    /// What is cut out of its hidden middle.
    pub fn holes(&self) -> Vec<Span> {
        match &self.dies {
            Some(dies) => dies.places.clone(),
            None => self.piece.hole.into_iter().collect(),
        }
    }
}

fn dies_of(piece: &Piece, decisions: &PaperDecisions, name: &str) -> Option<DiesInMiddle> {
    let (hole, die) = (piece.hole?, decisions.gut.dies.get(name)?);
    Some(DiesInMiddle {
        tool: die.tool.clone(),
        size: die.size,
        bar: BETWEEN_DIES,
        places: dies_in(hole, die.size, BETWEEN_DIES, die.count, None),
    })
}

/// All pieces of a layout.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Papered {
    /// Bottom to top, page by page.
    pub pieces: Vec<PaperedPiece>,
    /// What is cut beyond them.
    pub extras: Vec<PaperedPiece>,
    /// Pieces of which nothing shows.
    pub not_needed: Vec<String>,
}

/// What stands for a paper in a piecing; the empty name is none.
fn token(paper: Option<&PaperSide>) -> String {
    paper.map_or_else(String::new, |p| format!("{}:{}", p.item, p.side()))
}

/// What becomes of papers on a layout. `see_through` are the items that hide nothing.
pub fn papered(
    unit: Unit,
    layout: &Layout,
    decisions: &PaperDecisions,
    see_through: &BTreeSet<String>,
) -> Papered {
    let named = Named::of(layout, decisions);
    let piecing = piecing(unit, layout, decisions, &named, see_through);
    let found = piecing.pieces();
    let tucks = |piece: &Piece| piecing.tuck_of(&piece.block);
    let pieces: Vec<PaperedPiece> = found
        .pieces
        .into_iter()
        .flat_map(|piece| {
            let choice = named.choice(decisions, &piece.block);
            let cut_as = choice.map_or(CutAs::One, |c| c.cut_as);
            let slices = slices(&piece, cut_as, tucks(&piece));
            if slices.is_empty() {
                return vec![(None, piece)];
            }
            let numbered = slices.into_iter().enumerate();
            numbered.map(|(n, slice)| (Some(n + 1), slice)).collect()
        })
        .map(|(slice, piece)| {
            let block = layout.blocks.iter().find(|b| b.block.id == piece.block);
            let unit_name = piece
                .id
                .strip_prefix(piece.block.as_str())
                .and_then(|rest| rest.strip_prefix('/'));
            let mut papered = PaperedPiece {
                of: named.of.get(&piece.block).cloned(),
                unit: unit_name.map(str::to_owned),
                slice,
                extra: None,
                kind: block.map(|b| b.block.kind),
                shape: block.map(|b| outline_of(&b.block)),
                paper: named.papers.get(&piece.paper).cloned(),
                under: tucked_under(layout, &piece),
                at_page: sides_at_page(layout, &piece),
                is_all_cut: unit_name.is_some()
                    || block.is_some_and(|b| is_all(piece.cut, b.block.true_bounds())),
                piece,
                dies: None,
            };
            papered.dies = dies_of(&papered.piece, decisions, &papered.name());
            papered
        })
        .collect();
    Papered {
        extras: extras(&pieces, decisions),
        pieces,
        not_needed: found.not_needed,
    }
}

/// The outline of a block, or of its units.
fn outline_of(block: &Block) -> Shape {
    let has_units = block.grid.is_some() || block.ring.is_some();
    match block.unit_shape() {
        UnitShape::Circle if has_units => Shape::Ellipse,
        UnitShape::Square if has_units => Shape::Rect,
        _ => block.shape.clone(),
    }
}

/// Layout blocks by what they are, and papers by what stands for them.
struct Named {
    of: BTreeMap<String, (String, usize)>,
    papers: BTreeMap<String, PaperSide>,
}

impl Named {
    fn of(layout: &Layout, decisions: &PaperDecisions) -> Named {
        let blocks = layout.blocks.iter().zip(layout.identities());
        let of = blocks.map(|(b, id)| (b.block.id.clone(), (id.block.to_owned(), id.part)));
        let used = decisions.used();
        let papers = used.keys().map(|p| (token(Some(p)), (*p).clone()));
        Named {
            of: of.collect(),
            papers: papers.collect(),
        }
    }

    fn choice<'a>(&self, decisions: &'a PaperDecisions, block: &str) -> Option<&'a PieceChoice> {
        decisions.pieces.get(self.of.get(block)?)
    }
}

fn piecing(
    unit: Unit,
    layout: &Layout,
    decisions: &PaperDecisions,
    named: &Named,
    see_through: &BTreeSet<String>,
) -> Piecing {
    let (mut papers, mut tucks, mut cuts) = (BTreeMap::new(), BTreeMap::new(), BTreeMap::new());
    let mut gutted: BTreeSet<String> = BTreeSet::new();
    for block in layout.blocks.iter().filter(|b| is_papered(b.block.kind)) {
        let id = &block.block.id;
        let choice = named.choice(decisions, id);
        papers.insert(id.clone(), token(choice.and_then(|c| c.paper.as_ref())));
        for (unit, paper) in choice.iter().flat_map(|c| &c.units) {
            papers.insert(format!("{id}/{unit}"), token(Some(paper)));
        }
        tucks.extend(choice.and_then(|c| Some((id.clone(), c.tuck?))));
        cuts.extend(choice.and_then(|c| Some((id.clone(), c.cut?))));
        let of = named.of.get(id);
        if of.is_some_and(|(b, part)| decisions.gut.from.contains(&format!("{b}/{part}"))) {
            gutted.insert(id.clone());
        }
    }
    let grounds = (0..layout.canvas.pages).map(|page| format!("ground-{page}"));
    gutted.extend(grounds.filter(|g| decisions.gut.from.contains(g)));
    let clear = named.papers.iter();
    for page in 0..layout.canvas.pages {
        let ground = decisions.ground[usize::from(page)].as_ref();
        if ground.is_some_and(|g| see_through.contains(&g.item)) {
            keep_one_whole(layout, page, &mut gutted);
        }
    }
    Piecing {
        unit,
        layout: layout.clone(),
        ground: decisions
            .ground
            .iter()
            .take(usize::from(layout.canvas.pages))
            .map(|g| Some(token(g.as_ref())))
            .collect(),
        papers,
        see_through: clear
            .filter(|(_, p)| see_through.contains(&p.item))
            .map(|(token, _)| token.clone())
            .collect(),
        of_strips: of_strips(layout, decisions, named),
        tuck: decisions.tuck,
        tucks,
        cut: decisions.cut,
        cuts,
        gut: Some(Gutting {
            margin: decisions.gut.margin,
            bar: decisions.gut.bar,
            least: decisions.gut.least,
            from: gutted,
        }),
    }
}

/// On a page that can be seen through, at least one piece of paper that runs its full height or width is not gutted: it holds the page together.
fn keep_one_whole(layout: &Layout, page: u8, gutted: &mut BTreeSet<String>) {
    let size = layout.canvas.page;
    let (w, h) = (size.w.ticks() as f64, size.h.ticks() as f64);
    let runs_through = |b: &&crate::layout::LayoutBlock| {
        let extent = b.extent();
        b.page == page
            && is_papered(b.block.kind)
            && (extent.w() >= w - HAIR || extent.h() >= h - HAIR)
    };
    let through: Vec<&String> = layout
        .blocks
        .iter()
        .filter(runs_through)
        .map(|b| &b.block.id)
        .collect();
    gutted.remove(&format!("ground-{page}"));
    if through.iter().all(|id| gutted.contains(*id))
        && let Some(first) = through.first()
    {
        gutted.remove(*first);
    }
}

fn of_strips(layout: &Layout, decisions: &PaperDecisions, named: &Named) -> BTreeSet<String> {
    let ids = layout.blocks.iter().map(|b| &b.block.id);
    let is_of_strips = |id: &&String| {
        let choice = named.choice(decisions, id);
        choice.is_some_and(|c| c.cut_as == CutAs::Strips)
    };
    ids.filter(is_of_strips).cloned().collect()
}

fn is_all(cut: Span, of: Span) -> bool {
    cut.is_in(of, HAIR) && of.is_in(cut, HAIR)
}

/// How far a side of the cut reaches beyond what shows.
const fn tucked_at(piece: &Piece, side: Edge) -> f64 {
    match side {
        Edge::Left => piece.tucked.left,
        Edge::Right => piece.tucked.right,
        Edge::Top => piece.tucked.top,
        Edge::Bottom => piece.tucked.bottom,
    }
}

/// Less than this, in ticks, is nothing to speak of: 1/64 in.
const HAIR: f64 = 3_175.0;

/// For each side that reaches under something, the topmost block that covers most of what is hidden there.
fn tucked_under(layout: &Layout, piece: &Piece) -> Vec<(Edge, String)> {
    if piece.turn != 0.0 {
        return Vec::new();
    }
    let own = layout.blocks.iter().position(|b| b.block.id == piece.block);
    let over = own.map_or(0, |n| n + 1);
    let sides = Edge::ALL
        .into_iter()
        .filter(|side| tucked_at(piece, *side) > HAIR);
    let cover = |side: Edge| {
        let hidden = piece.cut.with_edge(side.opposite(), piece.shows.edge(side));
        let shared = |b: &Span| b.cut_to(hidden).area();
        let above = layout.blocks[over..]
            .iter()
            .filter(|b| {
                b.page == piece.page && (is_papered(b.block.kind) || b.block.kind == Kind::Photo)
            })
            .map(|b| (shared(&b.block.true_bounds()), &b.block.id));
        let best = above.max_by(|a, b| a.0.total_cmp(&b.0))?;
        (best.0 > 0.0).then(|| (side, best.1.clone()))
    };
    sides.filter_map(cover).collect()
}

fn sides_at_page(layout: &Layout, piece: &Piece) -> Vec<Edge> {
    let page = layout.canvas.page;
    let left = f64::from(piece.page) * page.w.ticks() as f64;
    let span = Span {
        l: left,
        t: 0.0,
        r: left + page.w.ticks() as f64,
        b: page.h.ticks() as f64,
    };
    let is_at = |side: &Edge| (piece.cut.edge(*side) - span.edge(*side)).abs() < HAIR;
    Edge::ALL
        .into_iter()
        .filter(|side| piece.turn == 0.0 && is_at(side))
        .collect()
}

impl PaperedPiece {
    /// What a plan calls it: `ground-0`, `BLOCK/PART`, `BLOCK/PART/UNIT`; with `#NUMBER` for one of several pieces of paper, `/spare-NUMBER`
    /// and `/twin` for what is cut beyond them.
    pub fn name(&self) -> String {
        let name = match (&self.of, &self.unit, self.extra) {
            (None, ..) => self.piece.id.clone(),
            (Some((block, part)), _, Some(Extra::Spare(n))) => format!("{block}/{part}/spare-{n}"),
            (Some((block, part)), None, _) => format!("{block}/{part}"),
            (Some((block, part)), Some(unit), _) => format!("{block}/{part}/{unit}"),
        };
        let slice = self.slice.map_or_else(String::new, |n| format!("#{n}"));
        let twin = if self.extra == Some(Extra::Twin) {
            "/twin"
        } else {
            ""
        };
        format!("{name}{slice}{twin}")
    }

    /// Why it is cut as it is; layout blocks by their ids.
    pub fn sentences(&self, unit: Unit) -> Vec<String> {
        let mut told = Vec::new();
        for (side, block) in &self.under {
            let by = Length::from_ticks(tucked_at(&self.piece, *side).round() as i64);
            told.push(format!(
                "{} tucks under {block} at the {}.",
                by.to_ruler_text(unit),
                side.name()
            ));
        }
        if !self.at_page.is_empty() && self.of.is_some() {
            let names: Vec<&str> = self.at_page.iter().map(|s| s.name()).collect();
            let ends = if names.len() == 1 { "ends" } else { "end" };
            told.push(format!(
                "{} {ends} at the page: nothing added.",
                listed(&names)
            ));
        }
        if self.piece.parts.len() > 1 && self.of.is_some() {
            told.push(format!(
                "It shows in {} places, and runs hidden between them.",
                self.piece.parts.len()
            ));
        }
        told
    }
}

/// `Left`, `Left and top`, `Left, top and bottom`.
fn listed(names: &[&str]) -> String {
    let text = match names.split_last() {
        Some((last, [])) => (*last).to_owned(),
        Some((last, others)) => format!("{} and {last}", others.join(", ")),
        None => String::new(),
    };
    let mut letters = text.chars();
    letters
        .next()
        .map_or_else(String::new, |f| f.to_uppercase().chain(letters).collect())
}

impl Papered {
    /// Writes it; places are measured from each page's own corner.
    pub fn to_json(&self, layout: &Layout, unit: Unit) -> Value {
        let ticks = unit.ticks() as f64;
        let side = |v: f64| number(v / ticks);
        let written: Vec<Value> = self
            .pieces
            .iter()
            .map(|p| {
                let page = f64::from(p.piece.page) * layout.canvas.page.w.ticks() as f64;
                let rect = |s: Span| json!({"x": side(s.l - page), "y": side(s.t), "w": side(s.w()), "h": side(s.h())});
                let t = p.piece.tucked;
                json!({
                    "name": p.name(), "block": p.piece.block, "of": p.of.as_ref().map(|o| &o.0), "part": p.of.as_ref().map(|o| o.1),
                    "unit": p.unit, "kind": p.kind.map(Kind::name), "page": p.piece.page, "turn": number(p.piece.turn),
                    "paper": p.paper.as_ref().map(|s| json!({"item": s.item, "side": s.side()})),
                    "shows": rect(p.piece.shows), "area": number(p.piece.area / ticks / ticks), "parts": p.piece.parts.len(), "slice": p.slice,
                    "cut": rect(p.piece.cut), "hole": p.piece.hole.map(rect),
                    "tucked": {"left": side(t.left), "right": side(t.right), "top": side(t.top), "bottom": side(t.bottom)},
                    "dies": p.dies.as_ref().map(|d| json!({"tool": d.tool, "size": {"w": d.size.w.to_units(unit), "h": d.size.h.to_units(unit)},
                                                           "places": d.places.iter().map(|s| rect(*s)).collect::<Vec<_>>()})),
                    "told": p.sentences(unit),
                })
            })
            .collect();
        json!({"unit": unit.name(), "pieces": written, "not_needed": self.not_needed})
    }
}
