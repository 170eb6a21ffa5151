//! Sketches by number, and what is to be seen in them.

use crate::auth::Member;
use crate::compute::Work;
use crate::documents::sketches::SketchDoc;
use crate::features::sketches::routes as sketches;
use crate::features::sketches::views::readings::{
    AgreeDoc, EqualView, GapView, LineView, LinesView, MirroredView, NearView, NumbersDoc,
    NumbersView, ReadingView, WordErrorView,
};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Document, Id, InHand};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::document::{Finding, Invalid};
use metrosk_core::geometry::Axis;
use metrosk_core::length::Length;
use metrosk_core::notation;
use metrosk_core::plan::Defaults;
use metrosk_core::reading::{Place, Reading, made_one, near_lines};
use metrosk_core::sketch::Sketch;

/// Reads a sketch typed by number: the document, and what is to be seen in it, or what can't be understood, at the word.
#[utoipa::path(
    post, operation_id = "read_numbers", path = "/api/notation", tag = "sketches", request_body = NumbersDoc,
    responses(
        (status = 200, body = NumbersView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn read_numbers(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Body(given): Body<NumbersDoc>,
) -> Result<Json<NumbersView>, Failure> {
    let team = member.team();
    app.compute
        .run(team, Work::Document, move |_| understood(&member, &given))
        .await?
        .map(Json)
}

/// What lines say to a maker, or what of them can't be understood.
fn understood(member: &Member, given: &NumbersDoc) -> Result<NumbersView, Failure> {
    let earlier = given
        .over
        .as_ref()
        .map(Sketch::from_json)
        .transpose()
        .map_err(|e| names::under("over", e))?;
    let maker = Defaults::from_json(&member.person.defaults).unwrap_or_default();
    let read = match &earlier {
        Some(earlier) => notation::read_over(earlier, &maker, &given.text),
        None => notation::read_as(&maker, &given.text),
    };
    // What the language lets through may still break a rule of the format: a mat around a mat around itself.
    Ok(match read {
        Ok(sketch) => match Sketch::from_json(&sketch.to_json()) {
            Ok(sketch) => NumbersView {
                document: Some(sketch.to_json()),
                preview: None,
                reading: Some(reading(&sketch)),
                errors: Vec::new(),
            },
            Err(invalid) => NumbersView {
                document: None,
                preview: None,
                reading: None,
                errors: invalid.findings.iter().map(of_document).collect(),
            },
        },
        Err(errors) => {
            let preview = notation::read_what_can_be(&maker, &given.text).map(|s| s.to_json());
            NumbersView {
                document: None,
                preview,
                reading: None,
                errors: errors.into_iter().map(at_word).collect(),
            }
        }
    })
}

/// A sketch document as lines by number, with what is to be seen in it. It goes into no drawer.
#[utoipa::path(
    post, operation_id = "write_numbers", path = "/api/notation/lines", tag = "sketches", request_body = SketchDoc,
    responses(
        (status = 200, body = LinesView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn write_numbers(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<LinesView>, Failure> {
    let work = move |_: &_| {
        let sketch = Sketch::from_json(&body)?;
        Ok(Json(LinesView {
            text: notation::print(&sketch),
            reading: reading(&sketch),
        }))
    };
    app.compute.run(member.team(), Work::Document, work).await?
}

fn at_word(e: notation::WordError) -> WordErrorView {
    WordErrorView {
        line: e.line,
        column: e.column,
        length: e.length,
        found: e.found,
        allowed: e.allowed,
    }
}

fn of_document(f: &Finding) -> WordErrorView {
    WordErrorView {
        line: 0,
        column: 0,
        length: 0,
        found: format!("{} at {}", f.found, f.path),
        allowed: vec![f.allowed.clone()],
    }
}

/// The sketch with edges that nearly agree made one line: those of the blocks named, as the sketch's reading tells them.
#[utoipa::path(
    post, operation_id = "make_edges_agree", path = "/api/notation/agree", tag = "sketches", request_body = AgreeDoc,
    responses(
        (status = 200, body = SketchDoc),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn agree(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Body(asked): Body<AgreeDoc>,
) -> Result<Json<serde_json::Value>, Failure> {
    app.compute
        .run(member.team(), Work::Document, move |_| agreed(&asked))
        .await?
        .map(Json)
}

fn agreed(asked: &AgreeDoc) -> Result<serde_json::Value, Failure> {
    let sketch = Sketch::from_json(&asked.sketch).map_err(|e| names::under("sketch", e))?;
    let place = Place::ALL
        .into_iter()
        .find(|p| p.along() == asked.along && !p.is_centre());
    let place = place.ok_or_else(|| {
        Invalid::one(
            "along",
            format!("{:?}", asked.along),
            "left, right, top or bottom",
        )
    })?;
    let blocks: Vec<usize> = asked
        .blocks
        .iter()
        .filter_map(|id| sketch.index_of(id))
        .collect();
    let near = near_lines(&sketch)
        .into_iter()
        .find(|n| n.line.place == place && n.line.blocks.iter().all(|b| blocks.contains(b)));
    let near = near.ok_or_else(|| {
        Invalid::one(
            "blocks",
            asked.blocks.join(", "),
            "blocks whose edges nearly agree, as the reading tells them",
        )
    })?;
    Ok(made_one(&sketch, &near).to_json())
}

/// A sketch as lines by number.
#[utoipa::path(
    get, operation_id = "sketch_numbers", path = "/api/sketches/{id}/notation", tag = "sketches", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = String, content_type = "text/plain"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn as_numbers(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<String, Failure> {
    let row = sketches::find(&app, &member, id).await?;
    let sketch = Sketch::from_json(&row.document)
        .map_err(|e| Failure::Internal(format!("sketch {id} in the drawer is broken: {e}")))?;
    Ok(notation::print(&sketch))
}

/// What is to be seen in a sketch.
pub(crate) fn reading(sketch: &Sketch) -> ReadingView {
    let read = Reading::of(sketch);
    let id = |n: usize| sketch.blocks[n].id.clone();
    let pair = |(a, b): &(usize, usize)| [id(*a), id(*b)];
    let units = |ticks: f64| Length::from_ticks(ticks.round() as i64).to_units(sketch.unit);
    ReadingView {
        photo_slots: sketch.photo_slots(),
        lines: read
            .lines
            .iter()
            .map(|l| LineView {
                place: l.place.name().to_owned(),
                along: l.place.along().to_owned(),
                at: units(l.at),
                blocks: l.blocks.iter().map(|n| id(*n)).collect(),
            })
            .collect(),
        contacts: read
            .contacts
            .iter()
            .map(|(a, b, _)| [id(*a), id(*b)])
            .collect(),
        gaps: read
            .gaps
            .iter()
            .map(|g| GapView {
                blocks: [id(g.from), id(g.to)],
                width: units(g.width),
            })
            .collect(),
        lies_on: read.lies_on.iter().map(pair).collect(),
        frames: read.frames.iter().map(pair).collect(),
        equal: read
            .equal
            .iter()
            .map(|(axis, blocks)| EqualView {
                wide: *axis == Axis::X,
                blocks: blocks.iter().map(|n| id(*n)).collect(),
            })
            .collect(),
        bleeding: read.bleeding.iter().map(|n| id(*n)).collect(),
        mirrored: read
            .mirrored
            .iter()
            .map(|(axis, a, b)| MirroredView {
                across: *axis == Axis::X,
                blocks: [id(*a), id(*b)],
            })
            .collect(),
        near: near_lines(sketch)
            .iter()
            .map(|n| NearView {
                along: n.line.place.along().to_owned(),
                blocks: n.line.blocks.iter().map(|b| id(*b)).collect(),
                at: units(n.line.at),
                spread: units(n.spread),
            })
            .collect(),
        credit: sketch.credit(),
    }
}
