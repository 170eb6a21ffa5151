//! What a page's plan knows of what is asked.

use super::{Ask, CallDecisions, What};
use crate::fit::Request;
use crate::geometry::Size;
use crate::hop::compare;
use crate::layout::Layout;
use crate::length::{Length, Unit};
use crate::sketch::{Kind, Sketch};

/// One thing that is asked, and how it stands.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Finding {
    /// The ask's id.
    pub id: String,
    /// What is asked, in words.
    pub asks: String,
    /// Whether the plan sees it; none where only its maker can tell.
    pub seen: Option<bool>,
    /// Whether she ticked it.
    pub ticked: bool,
    /// What there is of it, in words; blocks by their ids.
    pub says: String,
    /// How far the sketch is held to, where that is asked.
    pub held: Option<Held>,
}

/// How far a page holds to a sketch: blocks, in counts.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Held {
    /// In their place.
    pub stayed: usize,
    /// Elsewhere, or of another size.
    pub moved: usize,
    /// Of the sketch, but not on the page.
    pub went: usize,
    /// On the page, but not of the sketch.
    pub came: usize,
    /// Of the sketch, and on the page more than once.
    pub doubled: usize,
}

/// How a page stands to what it is asked for.
pub fn check(
    decisions: &CallDecisions,
    request: &Request,
    layout: Option<&Layout>,
) -> Vec<Finding> {
    let Some(call) = &decisions.call else {
        return Vec::new();
    };
    call.asks
        .iter()
        .map(|ask| {
            let ticked = decisions.ticked.contains(&ask.id);
            let sketch = call.sketch.as_ref();
            let (seen, says, held) = look(ask, request, layout, sketch);
            Finding {
                id: ask.id.clone(),
                asks: asked(&ask.what, request.unit),
                seen,
                ticked,
                says,
                held,
            }
        })
        .collect()
}

/// What is asked, in words.
fn asked(what: &What, unit: Unit) -> String {
    let size = |s: &Size| s.to_ruler_text(unit);
    match what {
        What::Pages(1) => "One page".to_owned(),
        What::Pages(_) => "Two pages".to_owned(),
        What::PageSize(s) => format!("A page of {}", size(s)),
        What::Photos(n) => format!("{n} photos at least"),
        What::LargePhoto(s) => format!("A photo of {} or larger", size(s)),
        What::Sketch => "The sketch".to_owned(),
        What::Papers(n, None) => format!("{n} papers at least"),
        What::Papers(n, Some(kit)) => format!("{n} papers of {kit} at least"),
        What::Kit(name) => format!("The kit {name}"),
        What::Technique(name) | What::Other(name) => name.clone(),
    }
}

type Look = (Option<bool>, String, Option<Held>);

fn look(ask: &Ask, request: &Request, layout: Option<&Layout>, sketch: Option<&Sketch>) -> Look {
    let target = &request.target;
    let page = target.page.to_ruler_text(request.unit);
    let by_hand = || (None, String::new(), None);
    match &ask.what {
        What::Pages(n) => (
            Some(u32::from(target.pages) == *n),
            format!("{page} each"),
            None,
        ),
        What::PageSize(s) => (Some(target.page == *s), page, None),
        What::Photos(least) => {
            let Some(layout) = layout else {
                return (Some(false), "no layout yet".to_owned(), None);
            };
            let count = photos(layout).count();
            (
                Some(count >= *least as usize),
                format!("{count} on the page"),
                None,
            )
        }
        What::LargePhoto(least) => match layout.and_then(largest_photo) {
            Some((id, size)) => {
                let says = format!("{id} is {}", size.to_ruler_text(request.unit));
                (Some(is_within(*least, size)), says, None)
            }
            None => (Some(false), "no photo yet".to_owned(), None),
        },
        What::Sketch => match sketch {
            Some(asked) => {
                let held = held_to(asked, &request.sketch, layout);
                let all = asked.blocks.len();
                let says = format!("{} of {all} blocks in place", held.stayed);
                // It is told, never judged: she says when it is near enough.
                (None, says, Some(held))
            }
            None => by_hand(),
        },
        What::Papers(..) | What::Kit(_) | What::Technique(_) | What::Other(_) => by_hand(),
    }
}

/// How far a page's own sketch, and its layout, hold to the sketch that was asked for.
fn held_to(asked: &Sketch, own: &Sketch, layout: Option<&Layout>) -> Held {
    let found = compare(asked, own);
    let doubled = layout.map_or(0, |layout| {
        own.blocks
            .iter()
            .filter(|b| {
                layout
                    .blocks
                    .iter()
                    .filter(|l| l.from.contains(&b.id))
                    .count()
                    > 1
            })
            .count()
    });
    Held {
        stayed: found.stayed.len(),
        moved: found.moved.len(),
        went: found.went.len(),
        came: found.came.len(),
        doubled,
    }
}

fn photos(layout: &Layout) -> impl Iterator<Item = (&str, Size)> {
    layout
        .blocks
        .iter()
        .filter(|b| b.block.kind == Kind::Photo)
        .map(|b| {
            let rect = b.whole.unwrap_or(b.block.rect);
            (
                b.from.first().unwrap_or(&b.block.id).as_str(),
                Size {
                    w: rect.w,
                    h: rect.h,
                },
            )
        })
}

fn largest_photo(layout: &Layout) -> Option<(&str, Size)> {
    photos(layout).max_by_key(|(_, s)| i128::from(s.w.ticks()) * i128::from(s.h.ticks()))
}

/// Whether a photo is as large as asked, either way up; a hair less is as good.
fn is_within(least: Size, found: Size) -> bool {
    let hair = Length::inches(1, 16).ticks();
    let fits = |w: Length, h: Length| {
        found.w.ticks() + hair >= w.ticks() && found.h.ticks() + hair >= h.ticks()
    };
    fits(least.w, least.h) || fits(least.h, least.w)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::{Plan, brought_up, start};
    use serde_json::json;

    fn plan_with(call: serde_json::Value) -> Result<Plan, crate::document::Invalid> {
        let sketch = crate::notation::read(
            "one page 12 x 12 in\nphoto p1 4x6 at 3, 2\nphoto p2 3x3 at 8, 2\ntitle t1 5x1 at 3, 9",
        )
        .expect("a sketch");
        let mut plan = start(&sketch, &crate::defaults::Defaults::default());
        plan["call"] = json!({"call": call, "ticked": ["f"]});
        Plan::from_json(&brought_up(&plan))
    }

    fn found(call: serde_json::Value) -> Vec<Finding> {
        let plan = plan_with(call).expect("a plan");
        let layout = plan.proposal().expect("it fits").layout;
        check(&plan.call.decisions, &plan.request(), Some(&layout))
    }

    #[test]
    fn what_the_plan_knows_is_seen_and_the_rest_is_ticked() {
        let found = found(json!({"name": "Out on the flats", "asks": [
            {"id": "a", "what": "pages", "count": 2},
            {"id": "b", "what": "photos", "count": 2},
            {"id": "c", "what": "large-photo", "w": 6, "h": 4},
            {"id": "e", "what": "technique", "name": "Stitching"},
            {"id": "f", "what": "other", "name": "A sledge somewhere"},
        ]}));
        let stands: Vec<(Option<bool>, bool)> = found.iter().map(|f| (f.seen, f.ticked)).collect();
        assert_eq!(
            stands,
            [
                (Some(false), false),
                (Some(true), false),
                (Some(true), false),
                (None, false),
                (None, true)
            ]
        );
        assert_eq!(found[0].asks, "Two pages");
        assert_eq!(found[2].says, "p1 is 4 × 6 in");
    }

    #[test]
    fn how_far_the_sketch_is_held_to_is_told_in_counts() {
        let asked = crate::notation::read(
            "one page 12 x 12 in\nphoto p1 4x6 at 3, 2\nphoto p2 3x3 at 8, 6\njournal j1 3x2 at 8, 9",
        )
        .expect("a sketch");
        let found = found(
            json!({"name": "By sketch", "sketch": asked.to_json(), "asks": [
                {"id": "d", "what": "sketch"},
            ]}),
        );
        let held = Held {
            stayed: 1,
            moved: 1,
            went: 1,
            came: 1,
            doubled: 0,
        };
        assert_eq!(found[0].held, Some(held));
        assert_eq!(found[0].seen, None);
    }

    #[test]
    fn a_broken_call_is_told_by_its_places() {
        let paths = |call| -> Vec<String> {
            let invalid = plan_with(call).expect_err("it is broken");
            invalid.findings.into_iter().map(|f| f.path).collect()
        };
        assert_eq!(paths(json!({"name": " "})), ["call.call.name"]);
        assert_eq!(
            paths(json!({"name": "x", "due": "2026-02-30"})),
            ["call.call.due"]
        );
        assert_eq!(
            paths(json!({"name": "x", "due": "2026-12-02", "shown": "2026-12-01"})),
            ["call.call"]
        );
        assert_eq!(
            paths(json!({"name": "x", "asks": [{"id": "a", "what": "glitter"}]})),
            ["call.call.asks[0].what"]
        );
        assert_eq!(
            paths(json!({"name": "x", "links": [{"name": "n", "url": "javascript:1"}]})),
            ["call.call.links[0].url"]
        );
    }
}
