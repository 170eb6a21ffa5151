//! What changed and why: the notes of a fit.

use super::conflict::names_of;
use super::fold_choice::FoldWay;
use super::holds::{Keep, What};
use super::item::{Along, Item};
use super::measure::{Group, Measures};
use super::model::Scene;
use super::note::{Broken, Note, SizePair, Way};
use super::search::Chosen;
use super::slot_choice::SlotWay;
use super::why;
use crate::geometry::{Axis, Span};
use crate::layout::{self, Layout, LayoutBlock, crop_of};
use crate::length::Length;
use crate::photos::{Face, Photos};
use crate::reading::{AGREE, INCH, KEPT, Place, distance, face};
use crate::sketch::Kind;

/// A block moved by this share of the canvas is worth a sentence.
const WORTH_SAYING: f64 = 0.035;
/// How many moves are told.
const MOST_MOVES: usize = 3;
/// A print that loses more than this is named.
const TRIM_SAID: f64 = 0.02;
/// A face that loses no more than this share of the print shows whole.
const FACE_CUT: f64 = 0.005;

/// All notes, what she decides by first.
pub(crate) fn notes(
    scene: &Scene<'_>,
    chosen: &Chosen,
    layout: &Layout,
    measures: &Measures,
) -> Vec<Note> {
    let mut said = Vec::new();
    photo_counts(&mut said, scene, layout);
    doubled(&mut said, scene, layout);
    contacts(&mut said, scene, measures);
    moves(&mut said, scene, chosen, measures);
    trims(&mut said, scene, layout);
    over_fold(&mut said, scene, layout);
    units(&mut said, scene);
    mats(&mut said, scene);
    lost_lines(&mut said, scene, measures);
    open_spread(&mut said, scene);
    if chosen.tried.1 > 0 {
        said.push(Note::SearchBounded {
            compared: chosen.tried.0,
            left_out: chosen.tried.1,
        });
    }
    said
}

fn length(ticks: f64) -> Length {
    Length::from_ticks(ticks.round() as i64)
}

fn size_of(span: Span) -> SizePair {
    (length(span.w()), length(span.h()))
}

fn ids_of(scene: &Scene<'_>, item: &Item) -> Vec<String> {
    item.from
        .iter()
        .map(|n| scene.sketch.blocks[*n].id.clone())
        .collect()
}

fn photo_counts(said: &mut Vec<Note>, scene: &Scene<'_>, layout: &Layout) {
    for choice in scene
        .request
        .slots
        .iter()
        .filter(|s| s.way == SlotWay::Gone)
    {
        let mats = scene.sketch.blocks.iter().filter(|b| {
            b.kind == Kind::Mat && b.under.as_ref().is_some_and(|u| choice.photos.contains(u))
        });
        said.push(Note::LeftOut {
            photos: choice.photos.clone(),
            mats: mats.map(|b| b.id.clone()).collect(),
        });
    }
    for item in scene
        .items
        .iter()
        .filter(|i| scene.sketch.blocks[i.from[0]].kind == Kind::Photo)
    {
        let photos = ids_of(scene, item);
        if item.kind != Kind::Photo {
            let chosen = scene
                .request
                .slots
                .iter()
                .any(|s| photos.iter().any(|id| s.photos.contains(id)));
            said.push(Note::Becomes {
                photos,
                kind: item.kind,
                chosen,
            });
            continue;
        }
        let is_row = photos.len() > 1 && item.is_split() && item.cells.0.min(item.cells.1) == 1;
        if photos.len() > 1 && !is_row {
            said.push(Note::OneSlot {
                photos: photos.clone(),
            });
        }
        if item.is_split() && !item.each {
            said.push(split(scene, item, photos, is_row, layout));
        }
    }
}

/// A slot that several prints share.
fn split(
    scene: &Scene<'_>,
    item: &Item,
    photos: Vec<String>,
    is_row: bool,
    layout: &Layout,
) -> Note {
    let parts: Vec<&LayoutBlock> = layout
        .blocks
        .iter()
        .filter(|b| b.from == photos && b.block.kind == Kind::Photo)
        .collect();
    let each = size_of(parts[0].extent());
    let names = parts.iter().map(|p| p.block.id.clone()).collect();
    let photo = photos[0].clone();
    match item.focal {
        Some(along) => {
            let small = size_of(parts[1].extent());
            Note::LargeWithSmall {
                photo,
                large: each,
                small,
                count: parts.len() - 1,
                below: along == Along::Below,
            }
        }
        None if is_row => Note::Row {
            photos,
            parts: names,
            each,
        },
        None => Note::Split {
            photo,
            parts: names,
            each,
            straightened: scene.sketch.blocks[item.from[0]].turn != item.turn,
        },
    }
}

/// What stands on both pages.
fn doubled(said: &mut Vec<Note>, scene: &Scene<'_>, layout: &Layout) {
    for item in scene
        .items
        .iter()
        .filter(|i| i.each || i.is_split() && i.kind != Kind::Photo)
    {
        let ids = ids_of(scene, item);
        let parts: Vec<&LayoutBlock> = layout.blocks.iter().filter(|b| b.from == ids).collect();
        said.push(Note::OnBothPages {
            block: names_of(scene.sketch, item),
            parts: parts.iter().map(|p| p.block.id.clone()).collect(),
            size: size_of(parts[0].extent()),
            pair: !item.each,
            chosen: !ids.iter().any(|id| scene.task.doubled.contains(id)),
        });
    }
    for choice in scene
        .request
        .at_fold
        .iter()
        .filter(|_| scene.fold().is_some())
    {
        let item = scene.item_of(&choice.block).map(|n| &scene.items[n]);
        if let Some(item) =
            item.filter(|i| matches!(choice.way, FoldWay::Each | FoldWay::Pair) && !i.is_split())
        {
            said.push(Note::StaysOne {
                block: names_of(scene.sketch, item),
            });
        }
    }
}

/// Photos that touched, and photos a narrow gap apart.
fn contacts(said: &mut Vec<Note>, scene: &Scene<'_>, measures: &Measures) {
    let photos: Vec<&Group> = measures
        .groups
        .iter()
        .filter(|g| g.kind == Kind::Photo && g.parts == 1)
        .collect();
    for (n, a) in photos.iter().enumerate() {
        for b in &photos[n + 1..] {
            for (x, y) in [(a, b), (b, a)] {
                for axis in Axis::BOTH {
                    let (drawn, here) = (
                        distance(x.drawn, y.drawn, axis),
                        distance(x.here, y.here, axis),
                    );
                    if !face(x.drawn, y.drawn, axis) || drawn.abs() > INCH / 2.0 {
                        continue;
                    }
                    let id = |g: &Group| scene.sketch.blocks[g.blocks[0]].id.clone();
                    let photos = vec![id(x), id(y)];
                    if drawn.abs() <= AGREE && here.abs() <= KEPT {
                        said.push(Note::StillTouch { photos });
                    } else if drawn > AGREE && (here - drawn).abs() > KEPT {
                        said.push(Note::GapChanged {
                            photos,
                            from: length(drawn),
                            to: length(here),
                        });
                    }
                }
            }
        }
    }
}

fn moves(said: &mut Vec<Note>, scene: &Scene<'_>, chosen: &Chosen, measures: &Measures) {
    let canvas = scene.request.target.span();
    let mut far: Vec<(f64, &Group)> = measures
        .groups
        .iter()
        .map(|g| (g.drift(canvas), g))
        .filter(|(d, g)| *d >= WORTH_SAYING && g.kind != Kind::Mat)
        .collect();
    far.sort_by(|a, b| b.0.total_cmp(&a.0));
    for (_, group) in far.into_iter().take(MOST_MOVES) {
        let (dx, dy) = (
            group.here.cx() - group.want.cx(),
            group.here.cy() - group.want.cy(),
        );
        let (axis, off) = if dx.abs() / canvas.w() >= dy.abs() / canvas.h() {
            (Axis::X, dx)
        } else {
            (Axis::Y, dy)
        };
        let way = match (axis, off > 0.0) {
            (Axis::X, true) => Way::Right,
            (Axis::X, false) => Way::Left,
            (Axis::Y, true) => Way::Down,
            (Axis::Y, false) => Way::Up,
        };
        let by = length(off.abs());
        let item = scene
            .items
            .iter()
            .position(|i| i.from == group.blocks || i.from.contains(&group.blocks[0]));
        let Some(n) = item else { continue };
        let why = why::of_move(scene, chosen, n, axis, off);
        said.push(Note::Moved {
            block: names_of(scene.sketch, &scene.items[n]),
            by,
            way,
            why,
        });
    }
}

fn trims(said: &mut Vec<Note>, scene: &Scene<'_>, layout: &Layout) {
    for parts in layout.each_photo() {
        let Some((keep, placed)) = crop_of(&parts).zip(parts[0].placement.as_ref()) else {
            continue;
        };
        let trimmed = 1.0 - keep.w * keep.h;
        if trimmed > TRIM_SAID {
            let (w, h) = (placed.print.w.ticks() as f64, placed.print.h.ticks() as f64);
            let (from, to) = (
                (length(w), length(h)),
                (length(w * keep.w), length(h * keep.h)),
            );
            said.push(Note::Trimmed {
                print: placed.photo.clone(),
                slot: parts[0].block.id.clone(),
                from,
                to,
                share: trimmed,
            });
        }
        faces(said, scene, keep, &placed.photo);
    }
    if let Photos::Prints(prints) = &scene.request.photos
        && scene.request.whole
    {
        said.push(Note::KeepSizes {
            count: prints.len(),
        });
    }
}

/// What no slot could show whole.
fn faces(said: &mut Vec<Note>, scene: &Scene<'_>, keep: layout::Crop, photo: &str) {
    let Photos::Prints(prints) = &scene.request.photos else {
        return;
    };
    let cut = |f: &&Face| {
        let (right, bottom) = (keep.x + keep.w, keep.y + keep.h);
        f.x < keep.x - FACE_CUT
            || f.y < keep.y - FACE_CUT
            || f.x + f.w > right + FACE_CUT
            || f.y + f.h > bottom + FACE_CUT
    };
    let lost = prints
        .iter()
        .filter(|p| p.id == photo)
        .flat_map(|p| &p.faces)
        .filter(cut)
        .count();
    if lost > 0 {
        said.push(Note::FacesCut {
            print: photo.to_owned(),
            count: lost,
        });
    }
}

fn over_fold(said: &mut Vec<Note>, scene: &Scene<'_>, layout: &Layout) {
    for pair in layout.blocks.windows(2) {
        let (a, b) = (&pair[0], &pair[1]);
        // What stands once on each page does not meet at the fold.
        if a.from != b.from
            || a.from.is_empty()
            || a.page == b.page
            || (a.extent().r - b.extent().l).abs() > 1.0
        {
            continue;
        }
        said.push(Note::OverFold {
            kind: a.block.kind,
            blocks: a.from.clone(),
            parts: [a.block.id.clone(), b.block.id.clone()],
            widths: (length(a.extent().w()), length(b.extent().w())),
            broken: scene
                .item_of(&a.from[0])
                .and_then(|n| broken(&scene.items[n], scene, a.extent().l, b.extent().r)),
        });
    }
    for choice in scene
        .request
        .at_fold
        .iter()
        .filter(|c| scene.fold().is_some() && c.way == FoldWay::Across)
    {
        let parts = layout
            .blocks
            .iter()
            .filter(|b| b.from.contains(&choice.block))
            .count();
        if parts == 1 {
            said.push(Note::StaysWhole {
                title: choice.block.clone(),
            });
        }
    }
}

/// Between which units or words the fold comes, for what lies between two edges in ticks.
fn broken(item: &Item, scene: &Scene<'_>, left: f64, right: f64) -> Option<Broken> {
    let fold = scene.fold()?;
    if let Some(choice) = scene.runs_across(item) {
        let at = (fold * INCH - left) / (right - left);
        let space = choice
            .spaces()
            .iter()
            .position(|(begin, end)| begin - 1e-3 <= at && at <= end + 1e-3)?;
        let (before, after) = choice.words.split_at(space + 1);
        return Some(Broken::Words {
            left: before.join(" "),
            right: after.join(" "),
        });
    }
    item.grid?;
    let Some(at) = scene.unit_break(item) else {
        return Some(Broken::ThroughUnits { as_drawn: true });
    };
    if at.off(left / INCH, right / INCH, fold).abs() > at.give() + AGREE / INCH {
        return Some(Broken::ThroughUnits { as_drawn: false });
    }
    Some(Broken::Units {
        left: at.left,
        cols: at.cols,
    })
}

fn units(said: &mut Vec<Note>, scene: &Scene<'_>) {
    for item in scene.items {
        let Some((new, old)) = item.grid else {
            continue;
        };
        if (new.cols, new.rows) != (old.cols, old.rows) {
            let grid = scene.sketch.blocks[item.from[0]].id.clone();
            said.push(Note::Recounted {
                grid,
                from: (old.cols, old.rows),
                to: (new.cols, new.rows),
            });
        }
    }
}

/// Borders are absolutes; one note for all that are even and alike.
fn mats(said: &mut Vec<Note>, scene: &Scene<'_>) {
    let mut even: Vec<(f64, Vec<String>)> = Vec::new();
    for item in scene.items {
        let Some((_, borders)) = item.frames else {
            continue;
        };
        if borders.iter().any(|b| (b - borders[0]).abs() > 1.0) {
            continue;
        }
        match even.iter_mut().find(|e| (e.0 - borders[0]).abs() < 1.0) {
            Some(known) => known.1.extend(ids_of(scene, item)),
            None => even.push((borders[0], ids_of(scene, item))),
        }
    }
    said.extend(even.into_iter().map(|(border, mats)| Note::Borders {
        mats,
        width: length(border),
    }));
}

fn lost_lines(said: &mut Vec<Note>, scene: &Scene<'_>, measures: &Measures) {
    // A line that the maker has switched off is not missed.
    let held = |place: Place, n: usize| {
        let id = &scene.sketch.blocks[measures.groups[n].blocks[0]].id;
        scene.request.holds.holds_to(What::Line(place), id)
            && scene.request.holds.keep_of(id) != Some(Keep::Free)
    };
    let lost: Vec<_> = measures
        .lost_lines
        .iter()
        .filter(|(place, a, b)| !place.is_centre() && held(*place, *a) && held(*place, *b))
        .collect();
    for (place, a, b) in lost.iter().take(MOST_MOVES) {
        let id = |n: &usize| {
            scene.sketch.blocks[measures.groups[*n].blocks[0]]
                .id
                .clone()
        };
        said.push(Note::LineLost {
            place: *place,
            blocks: vec![id(a), id(b)],
        });
    }
    if lost.len() > MOST_MOVES {
        said.push(Note::MoreLinesLost {
            count: lost.len() - MOST_MOVES,
        });
    }
}

/// One page's photos on two pages leave a lot of open page: say so.
fn open_spread(said: &mut Vec<Note>, scene: &Scene<'_>) {
    let slots = scene.sketch.photo_slots();
    let shown = scene.request.photo_count().unwrap_or(slots);
    if scene.request.target.pages == 2
        && scene.sketch.canvas.pages == 1
        && slots > 0
        && shown <= slots
        && scene.map.sx > 1.5
    {
        said.push(Note::OpenSpread {
            photos: shown,
            would_fill: slots * 2,
        });
    }
}
