//! The outcome as a document.

use super::{PlacedLayer, PlacedPhoto, PlacedPhotos};
use crate::document::{Findings, Invalid, Node, length_number, number};
use crate::fit::PhotoDecisions;
use crate::geometry::{Edge, Size};
use crate::layout::Layout;
use crate::length::{Length, Unit};
use crate::photos::{Quality, Trim};
use crate::sketch::{MOST_BLOCKS, Reader, read_unit};
use serde_json::{Value, json};

impl PlacedPhotos {
    /// Writes it, lengths in its unit.
    #[must_use]
    pub fn to_json(&self) -> Value {
        let unit = self.unit;
        let placed: Vec<Value> = self.placed.iter().map(|p| photo(p, unit)).collect();
        let reasons: Vec<String> = self.reasons.iter().map(super::Reason::sentence).collect();
        let t = &self.thickness;
        let take_down: Vec<Value> = t
            .take_down
            .iter()
            .map(|(of, lift)| json!({"of": of, "by": lift.name()}))
            .collect();
        json!({
            "unit": unit.name(), "placed": placed, "aside": self.aside, "drawn": self.drawn, "reasons": reasons,
            "thickness": {
                "thick": length_number(t.thickest.thick, unit), "room": length_number(t.room, unit),
                "of": t.thickest.of, "take_down": take_down,
            },
        })
    }
}

fn size(size: Size, unit: Unit) -> Value {
    json!({"w": length_number(size.w, unit), "h": length_number(size.h, unit)})
}

fn photo(p: &PlacedPhoto, unit: Unit) -> Value {
    let length = |l: Length| length_number(l, unit);
    let trim = |t: &Trim| json!({"side": t.side.name(), "off": length(t.off)});
    let cut = |c: &super::CutArea| json!({"area": c.area, "slot": size(c.slot, unit), "print": c.print.map(|p| size(p, unit))});
    let covered = |c: &super::Covered| json!({"area": c.area, "by": c.by, "trimmed": c.trimmed});
    let quality = p.quality.map(|q| match q {
        Quality::Coarse => "coarse",
        Quality::Fair => "fair",
        Quality::Good => "good",
    });
    json!({
        "print": p.print, "block": p.block, "of": p.of, "part": p.part, "page": p.page,
        "slot": size(p.slot, unit), "size": size(p.size, unit),
        "window": {"x": length(p.window.x), "y": length(p.window.y), "w": length(p.window.w), "h": length(p.window.h)},
        "trims": p.trims.iter().map(trim).collect::<Vec<_>>(), "told": told(&p.trims, p.size, p.slot, unit),
        "cut": p.cut.iter().map(cut).collect::<Vec<_>>(),
        "covered": p.covered.iter().map(covered).collect::<Vec<_>>(),
        "dots": p.dots.map(|d| number(d.round())), "quality": quality, "largest_good": p.largest_good.map(|l| size(l, unit)),
        "layers": p.layers.iter().map(|l| layer(l, unit)).collect::<Vec<_>>(),
        "lift": p.lift.name(),
    })
}

fn layer(l: &PlacedLayer, unit: Unit) -> Value {
    let borders = l.borders.map(|b| length_number(b, unit));
    json!({"block": l.block, "size": size(l.size, unit), "borders": borders, "edge": l.edge, "around": l.around, "lift": l.lift.name()})
}

/// The trims as a maker says them: “Trim 4 x 6 to 3 x 4: 1 in off the top, 1 in off the bottom, then 1 in off the right.”
fn told(trims: &[Trim], from: Size, to: Size, unit: Unit) -> Option<String> {
    let side = |edge: Edge| match edge {
        Edge::Left => "left",
        Edge::Right => "right",
        Edge::Top => "top",
        Edge::Bottom => "bottom",
    };
    let cut = |t: &Trim| format!("{} off the {}", t.off.to_ruler_text(unit), side(t.side));
    let (last, before) = trims.split_last()?;
    let before: Vec<String> = before.iter().map(cut).collect();
    let cuts = if before.is_empty() {
        cut(last)
    } else {
        format!("{}, then {}", before.join(", "), cut(last))
    };
    let text = |s: Size| s.to_ruler_text(unit);
    Some(format!("Trim {} to {}: {cuts}.", text(from), text(to)))
}

/// What becomes of the prints of a plan's section on a layout: `{"unit", "drawn", "photos": {…}, "layout": {…}}`.
///
/// # Errors
/// All that breaks the format, each with its JSON path.
pub fn placed_photos_of(asked: &Value) -> Result<PlacedPhotos, Invalid> {
    let findings = Findings::default();
    let read = read_asked(&Node::top(asked, &findings));
    let (unit, drawn, photos) = findings.finish(read)?;
    let layout = asked
        .get("layout")
        .ok_or_else(|| Invalid::one("layout", "nothing", "a layout document"))?;
    let layout = Layout::from_json(layout).map_err(|e| e.under("layout"))?;
    Ok(super::placed_photos(unit, drawn, &photos, &layout))
}

fn read_asked(top: &Node<'_>) -> Option<(Unit, usize, PhotoDecisions)> {
    top.object()?;
    let unit = read_unit(top);
    let reader = Reader {
        unit: unit.unwrap_or_default(),
    };
    let drawn = top
        .need("drawn", "how many photos the sketch draws")
        .and_then(|n| n.count(0, MOST_BLOCKS as u32));
    let photos = top
        .need("photos", "a plan's section about photos")
        .and_then(|n| PhotoDecisions::read(&n, reader));
    Some((unit?, drawn? as usize, photos?))
}
