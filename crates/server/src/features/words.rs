//! A page's title in the letters of the stash, and its writing in a maker's hand. Without a page's row: what is asked stands in the body.

mod store;
pub(crate) mod views;

use crate::auth::Member;
use crate::compute::Work;
use crate::features::layouts::routes::exports::fitted_page;
use crate::features::stash::store::{self as stash, Search};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, Id, InHand, download};
use crate::http::names::file_name;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::HeaderMap;
use metrosk_core::document::Invalid;
use metrosk_core::geometry::{Rect, Size};
use metrosk_core::handwriting::{Hand, SENTENCE};
use metrosk_core::layout::Layout;
use metrosk_core::length::{Length, Unit};
use metrosk_core::plan::Plan;
use metrosk_core::sketch::Kind;
use metrosk_core::stash::{Item, ItemKind};
use metrosk_core::words::{
    Asked, Place, SetInStash, Shape, Title, WordsDecisions, Writing, place_for, places,
};
use metrosk_sheet::{WritingLines, writing_pdf};
use serde_json::{Value, json};
use store::SpentRow;
use uuid::Uuid;
use views::{WordsAskedDoc, WordsSetDoc};

/// How many letter sets a title may be set in.
const MOST_SETS: i64 = 40;
/// Writing round a page keeps so far from its edge.
const PAGE_MARGIN: Length = Length::inches(1, 4);

/// What is asked about a page's words.
struct AskedWords {
    unit: Unit,
    decisions: WordsDecisions,
    layout: Option<Layout>,
    page: Option<Uuid>,
    places: Vec<Place>,
}

/// A letter set with its colour and the pages that spend of it.
struct Tray {
    set: SetInStash,
    colour: Option<String>,
    pages: Vec<String>,
}

fn read(body: &Value) -> Result<AskedWords, Invalid> {
    let unit = if body["unit"] == "mm" {
        Unit::Millimetre
    } else {
        Unit::Inch
    };
    let decisions = body.get("words").filter(|w| !w.is_null());
    let decisions = decisions.map_or(Ok(WordsDecisions::default()), |w| {
        WordsDecisions::from_json(w, unit).map_err(|e| e.under("words"))
    })?;
    let layout = body.get("layout").filter(|l| !l.is_null());
    let layout = layout.map(|l| Layout::from_json(l).map_err(|e| e.under("layout")));
    let layout = layout.transpose()?;
    let plan = body.get("plan").filter(|p| !p.is_null());
    let plan = plan.map(|p| Plan::from_json(p).map_err(|e| e.under("plan")));
    let plan = plan.transpose()?;
    let prints = plan
        .as_ref()
        .map_or(&[][..], |p| p.photos.decisions.photos.prints());
    Ok(AskedWords {
        unit,
        decisions,
        places: layout.as_ref().map_or_else(Vec::new, |l| places(l, prints)),
        layout,
        page: body["page"]
            .as_str()
            .and_then(|id| Uuid::parse_str(id).ok()),
    })
}

/// How a page's title can be set in the letters that are left, and how its writing comes out. What other pages spend is counted off.
#[utoipa::path(
    post, operation_id = "words_set", path = "/api/words/set", tag = "words", request_body = WordsAskedDoc,
    responses((status = 200, body = WordsSetDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn set(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let asked = read(&body)?;
    let who = (member.team(), member.person.id);
    let letters = Search {
        kind: Some(ItemKind::Letters.name()),
        ..Search::default()
    };
    let rows = stash::list(&app.pool, who, &letters, (MOST_SETS, 0)).await?;
    let spent = store::spent_elsewhere(&app.pool, member.team(), asked.page).await?;
    let mut trays = Vec::new();
    for row in rows {
        let item = Item::from_json(&row.document)?;
        trays.extend(tray(row.id.to_string(), item, &spent));
    }
    let work = move |_: &metrosk_core::Cancel| answer(&asked, &trays);
    Ok(Json(app.compute.run(member.team(), Work::Fit, work).await?))
}

/// A set of the stash, if its letters were ever counted.
fn tray(id: String, item: Item, spent: &[SpentRow]) -> Option<Tray> {
    let mut taken = std::collections::BTreeMap::new();
    let mut pages = Vec::new();
    for row in spent {
        let Some(of_set) = row.uses.0.get(&id).filter(|s| !s.is_empty()) else {
            continue;
        };
        pages.push(row.name.clone());
        for (letter, count) in of_set {
            *taken.entry(*letter).or_insert(0) += count;
        }
    }
    Some(Tray {
        colour: item.a.ground().map(|c| c.to_hex()),
        set: SetInStash {
            id,
            name: item.name,
            kept: item.letters?,
            taken,
        },
        pages,
    })
}

fn answer(asked: &AskedWords, trays: &[Tray]) -> Value {
    let sets: Vec<SetInStash> = trays.iter().map(|t| t.set.clone()).collect();
    let title = asked.decisions.title.as_ref();
    let writing = asked.decisions.writing.as_ref();
    json!({
        "sentence": SENTENCE,
        "types": Hand::printed(asked.unit).iter().map(Hand::to_json).collect::<Vec<_>>(),
        "places": asked.places.iter().map(|p| place_json(p, asked.unit)).collect::<Vec<_>>(),
        "sets": trays.iter().map(|t| t.to_json(asked.unit)).collect::<Vec<_>>(),
        "title": title.and_then(|t| title_json(asked, t, &sets)),
        "writing": writing.and_then(|w| writing_json(asked, w)),
    })
}

fn size(rect: Rect) -> Size {
    Size {
        w: rect.w,
        h: rect.h,
    }
}

fn rect_json(rect: Rect, unit: Unit) -> Value {
    let units = |l: Length| l.to_units(unit);
    json!({"x": units(rect.x), "y": units(rect.y), "w": units(rect.w), "h": units(rect.h)})
}

fn title_json(asked: &AskedWords, title: &Title, sets: &[SetInStash]) -> Option<Value> {
    let unit = asked.unit;
    let place = place_for(
        &asked.places,
        title.block.as_ref(),
        Kind::Title,
        title.space,
    );
    // Without a layout she may still have said how large the space is.
    let rect = place
        .as_ref()
        .map(|p| p.rect)
        .or_else(|| at_corner(title.space))?;
    let space = size(rect);
    let settings = title.settings(&title.text, space, unit, sets)?;
    let other = |text: &String| {
        let set = title.settings(text, space, unit, sets);
        let mut told = set.map_or_else(
            || json!({"fits": false, "cost": null, "text": "no letters"}),
            |s| s.in_short(),
        );
        told["title"] = text.as_str().into();
        told
    };
    let mut others: Vec<Value> = title.others.iter().map(other).collect();
    others.sort_by_key(|o| o["fits"] != true);
    let mut written = settings.to_json(title);
    written["block"] = place.map(|p| p.key).into();
    written["space"] = rect_json(rect, unit);
    written["others"] = others.into();
    Some(written)
}

/// Writing with its space and hand; none where no hand or no space is known.
struct InPlace<'a> {
    block: Option<String>,
    rect: Rect,
    asked: Asked<'a>,
}

fn in_place<'a>(
    places: &[Place],
    layout: Option<&Layout>,
    writing: &'a Writing,
) -> Option<InPlace<'a>> {
    let place = place_for(places, writing.block.as_ref(), Kind::Journal, writing.space);
    let rect = match (writing.shape, layout) {
        (Shape::Edge, Some(layout)) => round_the_page(layout, place.as_ref().map_or(0, |p| p.page)),
        _ => place
            .as_ref()
            .map(|p| p.rect)
            .or_else(|| at_corner(writing.space))?,
    };
    let hand = writing.hand.as_ref()?;
    let kept = if writing.date_elsewhere {
        String::new()
    } else {
        writing.kept()
    };
    let asked = Asked {
        text: &writing.text,
        kept,
        space: size(rect),
        hand,
        pitch: writing.pitch.unwrap_or(hand.pitch),
        shape: writing.shape,
    };
    let block = place.map(|p| p.key);
    Some(InPlace { block, rect, asked })
}

/// A space of a size, on no page.
fn at_corner(size: Option<Size>) -> Option<Rect> {
    let Size { w, h } = size?;
    let (x, y) = (Length::ZERO, Length::ZERO);
    Some(Rect { x, y, w, h })
}

/// A page less a margin, for writing that runs round it.
fn round_the_page(layout: &Layout, page: u8) -> Rect {
    let Size { w, h } = layout.canvas.page;
    let left = Length::from_ticks(w.ticks() * i64::from(page));
    Rect {
        x: left + PAGE_MARGIN,
        y: PAGE_MARGIN,
        w: w - PAGE_MARGIN - PAGE_MARGIN,
        h: h - PAGE_MARGIN - PAGE_MARGIN,
    }
}

fn writing_json(asked: &AskedWords, writing: &Writing) -> Option<Value> {
    let found = in_place(&asked.places, asked.layout.as_ref(), writing)?;
    let mut written = found.asked.to_json(asked.unit);
    written["block"] = found.block.into();
    written["space"] = rect_json(found.rect, asked.unit);
    Some(written)
}

fn place_json(place: &Place, unit: Unit) -> Value {
    json!({"key": place.key, "kind": place.kind.name(), "block": place.block.map(Kind::name),
           "page": place.page, "box": rect_json(place.rect, unit)})
}

/// A page's writing at true scale as PDF: guide lines to slip under, then the text in strips to cut apart.
#[utoipa::path(
    get, operation_id = "writing_pdf", path = "/api/pages/{id}/writing.pdf", tag = "take away", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<u8>, content_type = "application/pdf"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn pdf(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<(HeaderMap, Vec<u8>), Failure> {
    let page = fitted_page(&app, &member, id).await?;
    let plan = Plan::from_json(&page.plan)?;
    let work = move |_: &metrosk_core::Cancel| {
        let writing = plan.words.decisions.writing.as_ref();
        let all = places(&page.layout, plan.photos.decisions.photos.prints());
        let found = writing.and_then(|w| in_place(&all, Some(&page.layout), w))?;
        let written = found.asked.written();
        let mut lines: Vec<(String, Length)> = written
            .lines
            .iter()
            .cloned()
            .zip(written.widths.iter().copied())
            .collect();
        if !found.asked.kept.is_empty() {
            let wide = found.asked.hand.width(&found.asked.kept).ceil() as i64;
            lines.push((found.asked.kept.clone(), Length::from_ticks(wide)));
        }
        let writing = WritingLines {
            space: found.asked.space,
            pitch: found.asked.shape.pitch(found.asked.pitch),
            lines: &lines,
            slots: &written.slots,
            typeface: found.asked.hand.typeface,
            unit: plan.unit,
        };
        Some((page.name.clone(), writing_pdf(&writing)))
    };
    let made = app.compute.run(member.team(), Work::Drawing, work).await?;
    let Some((name, made)) = made else {
        let allowed = "writing with a hand, on a page with a space for it";
        return Err(Invalid::one("words.writing", "nothing to put on paper", allowed).into());
    };
    let file = file_name(&format!("{name} writing"), ".pdf");
    let made = made.map_err(|e| Failure::Internal(e.to_string()))?;
    Ok((download("application/pdf", &file), made))
}

impl Tray {
    fn to_json(&self, unit: Unit) -> Value {
        let kept = &self.set.kept;
        let letters: Vec<Value> = kept
            .left
            .iter()
            .map(|(letter, had)| {
                let glyph = kept.glyph(*letter);
                json!({"letter": letter, "w": glyph.w.to_units(unit), "h": glyph.h.to_units(unit), "below": glyph.below.to_units(unit),
                       "had": had, "left": kept.left_of(*letter, &self.set.taken)})
            })
            .collect();
        json!({"id": self.set.id, "name": self.set.name, "colour": self.colour, "height": kept.height.to_units(unit),
               "material": kept.material.name(), "case": kept.case.name(), "never_runs_out": kept.material.never_runs_out(),
               "letters": letters, "pages": self.pages})
    }
}
