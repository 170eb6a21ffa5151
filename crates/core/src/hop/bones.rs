//! A page's bones: its layout as the sketch that the next maker begins with.

use crate::geometry::Rect;
use crate::layout::{Layout, LayoutBlock};
use crate::sketch::{Block, Sketch};
use serde_json::{Map, Value, json};
use std::collections::BTreeMap;

/// A layout as a sketch of that name and origin, without its photos. What the fold cut is one block again; grids and rings stay as they
/// lie on each page.
pub fn bones(layout: &Layout, name: &str, origin: Value) -> Sketch {
    let mut kept: Vec<Block> = Vec::with_capacity(layout.blocks.len());
    // Of what was cut, both parts go by the name of the first.
    let mut renamed: BTreeMap<&str, String> = BTreeMap::new();
    let mut before: Option<&LayoutBlock> = None;
    for part in &layout.blocks {
        let cut = before.filter(|left| {
            let is_plain = part.block.grid.is_none() && part.block.ring.is_none();
            is_plain && layout.are_parts(left, part)
        });
        if let (Some(left), Some(first)) = (cut, kept.last_mut()) {
            renamed.insert(&part.block.id, first.id.clone());
            first.rect = part.whole.unwrap_or(Rect {
                w: left.block.rect.w + part.block.rect.w,
                ..left.block.rect
            });
            for edge in &part.block.bleed {
                if !first.bleed.contains(edge) {
                    first.bleed.push(*edge);
                }
            }
            before = None;
            continue;
        }
        let mut block = part.block.clone();
        block.sure = None;
        kept.push(block);
        before = Some(part);
    }
    for block in &mut kept {
        for other in [&mut block.under, &mut block.host] {
            if let Some(id) = other.as_ref().and_then(|id| renamed.get(id.as_str())) {
                *other = Some(id.clone());
            }
        }
    }
    Sketch {
        unit: layout.unit,
        name: name.to_owned(),
        canvas: layout.canvas,
        blocks: kept,
        other: Map::from_iter([("origin".to_owned(), origin)]),
    }
}

/// The origin of what was lifted from a page of a maker's: she is credited, and those whom her own sketch was owed to.
pub fn lifted_from(maker: &str, before: &Sketch) -> Value {
    let origin = before.other.get("origin");
    let text = |name: &str| origin.and_then(|o| o.get(name)).and_then(Value::as_str);
    let earlier = origin
        .and_then(|o| o.get("after"))
        .and_then(Value::as_array);
    let mut after: Vec<&str> = Vec::new();
    for name in text("maker")
        .into_iter()
        .chain(earlier.into_iter().flatten().filter_map(Value::as_str))
    {
        if !name.trim().is_empty() && name != maker && !after.contains(&name) {
            after.push(name);
        }
    }
    json!({"how": "scraplift", "maker": maker, "after": after})
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fit::{Outcome, Request, fit};
    use crate::hop::compare;

    fn layout_of(lines: &str, pages: u32) -> (Sketch, Layout) {
        let sketch = crate::notation::read(&format!("one page 12 x 12 in\n{lines}"));
        let sketch = sketch.expect("a sketch");
        let request = json!({
            "format": "metrosk-fit/1", "unit": "in", "sketch": sketch.to_json(),
            "approach": if pages == 2 { "stretch" } else { "auto" },
            "target": {"page": {"w": 12, "h": 12}, "pages": pages},
        });
        let request = Request::from_json(&request).expect("a request");
        let Outcome::Proposals(found) = fit(&request) else {
            panic!("it fits")
        };
        (sketch, found[0].layout.clone())
    }

    const LINES: &str = "strip s1 12x1 at 0, 9\npaper m1 5x7 at 1/2, 1/2\nphoto p1 4x6 at 1, 1\nphoto p2 3x3 at 7, 2\ntitle t1 5x1 at 1, 10";

    #[test]
    fn a_fitted_page_hands_on_the_sketch_it_began_with() {
        let (sketch, layout) = layout_of(LINES, 1);
        let made = bones(
            &layout,
            "Low water",
            json!({"how": "scraplift", "maker": "Plover"}),
        );
        let again = Sketch::from_json(&made.to_json()).expect("bones are a sketch");
        assert_eq!(
            again.credit().as_deref(),
            Some("Lifted from a page by Plover.")
        );
        let difference = compare(&sketch, &again);
        assert_eq!(
            difference.stayed.len(),
            sketch.blocks.len(),
            "{difference:?}"
        );
    }

    #[test]
    fn everybody_on_the_way_is_credited_once() {
        let (mut sketch, _) = layout_of("photo p1 4x6 at 1, 1", 1);
        sketch.other.insert(
            "origin".to_owned(),
            json!({"maker": "Gull", "after": ["Dunlin", "Plover"]}),
        );
        assert_eq!(
            lifted_from("Plover", &sketch),
            json!({"how": "scraplift", "maker": "Plover", "after": ["Gull", "Dunlin"]})
        );
    }

    #[test]
    fn what_the_fold_cut_is_whole_again() {
        let (_, layout) = layout_of(LINES, 2);
        let strips = |blocks: &[LayoutBlock]| {
            let strip = crate::sketch::Kind::Strip;
            blocks.iter().filter(|b| b.block.kind == strip).count()
        };
        assert_eq!(strips(&layout.blocks), 2, "the strip is cut at the fold");
        let made = bones(&layout, "Low water", json!({}));
        let again = Sketch::from_json(&made.to_json()).expect("bones are a sketch");
        let wide = again
            .blocks
            .iter()
            .filter(|b| b.kind == crate::sketch::Kind::Strip);
        assert_eq!(wide.count(), 1);
        assert!(again.blocks.len() < layout.blocks.len());
    }
}
