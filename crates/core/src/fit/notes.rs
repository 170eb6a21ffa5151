//! What changed and why, in sentences a maker would say.

use super::conflict::names_of;
use super::fold_choice::FoldWay;
use super::holds::{Keep, What};
use super::item::{Along, Item};
use super::measure::{Group, Measures};
use super::model::Scene;
use super::prints::{Face, Photos};
use super::search::Chosen;
use super::slot_choice::SlotWay;
use super::why;
use crate::layout::{self, Layout, LayoutBlock, kept_in};
use crate::length::Length;
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

/// All sentences, what she decides by first.
pub(crate) fn notes(scene: &Scene<'_>, chosen: &Chosen, layout: &Layout, measures: &Measures) -> Vec<String> {
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
        said.push(format!("{} choices of sides of the fold were compared, {} more were left out to keep it quick.", chosen.tried.0, chosen.tried.1));
    }
    said
}

fn text(scene: &Scene<'_>, ticks: f64) -> String {
    Length::from_ticks(ticks.round() as i64).to_ruler_text(scene.request.unit)
}

/// `2 1/2 × 3 in`.
fn size_text(scene: &Scene<'_>, w: f64, h: f64) -> String {
    let (w, h) = (text(scene, w), text(scene, h));
    let unit = scene.request.unit.name();
    format!("{} × {h}", w.trim_end_matches(unit).trim_end())
}

/// `a`, `a and b`, `a, b and c`.
fn list(names: &[String]) -> String {
    match names {
        [] => String::new(),
        [one] => one.clone(),
        [most @ .., last] => format!("{} and {last}", most.join(", ")),
    }
}

fn ids_of(scene: &Scene<'_>, item: &Item) -> Vec<String> {
    item.from.iter().map(|n| scene.sketch.blocks[*n].id.clone()).collect()
}

fn photo_counts(said: &mut Vec<String>, scene: &Scene<'_>, layout: &Layout) {
    for choice in scene.request.slots.iter().filter(|s| s.way == SlotWay::Gone) {
        let mats = scene.sketch.blocks.iter().filter(|b| b.kind == Kind::Mat && b.under.as_ref().is_some_and(|u| choice.photos.contains(u)));
        let mats: Vec<String> = mats.map(|b| format!(", and its mat {} with it", b.id)).collect();
        said.push(format!("Photo {} is left out, as you chose{}.", list(&choice.photos), mats.concat()));
    }
    for item in scene.items.iter().filter(|i| scene.sketch.blocks[i.from[0]].kind == Kind::Photo) {
        let ids = ids_of(scene, item);
        let chosen = scene.request.slots.iter().any(|s| ids.iter().any(|id| s.photos.contains(id)));
        let because = if chosen { "as you chose" } else { "there are fewer photos than slots" };
        if item.kind != Kind::Photo {
            let what = if item.kind == Kind::Paper { "a square of paper" } else { "writing space" };
            said.push(format!("Photo {} becomes {what}: {because}.", list(&ids)));
            continue;
        }
        let is_row = ids.len() > 1 && item.is_split() && item.cells.0.min(item.cells.1) == 1;
        if ids.len() > 1 && !is_row {
            said.push(format!("Photos {} become one slot.", list(&ids)));
        }
        if item.is_split() && !item.each {
            let parts: Vec<&LayoutBlock> = layout.blocks.iter().filter(|b| b.from == ids && b.block.kind == Kind::Photo).collect();
            let names: Vec<String> = parts.iter().map(|p| p.block.id.clone()).collect();
            if let Some(along) = item.focal {
                let (large, small) = (parts[0].extent(), parts[1].extent());
                let side = if along == Along::Below { "below" } else { "beside" };
                let sizes = (size_text(scene, large.w(), large.h()), size_text(scene, small.w(), small.h()));
                said.push(format!(
                    "Photo {} shows one large print, {}, and {} small ones {side} it, {} each.",
                    ids[0],
                    sizes.0,
                    parts.len() - 1,
                    sizes.1
                ));
                continue;
            }
            let first = parts[0].extent();
            let each = size_text(scene, first.w(), first.h());
            if is_row {
                said.push(format!("Photos {} become a row of {}: {}, {each} each.", list(&ids), names.len(), list(&names)));
                continue;
            }
            let straight = if scene.sketch.blocks[item.from[0]].turn == item.turn { "" } else { ", and stands straight" };
            said.push(format!("Photo {} is split for {} prints{straight}: {}, {each} each.", ids[0], names.len(), list(&names)));
        }
    }
}

/// What stands on both pages.
fn doubled(said: &mut Vec<String>, scene: &Scene<'_>, layout: &Layout) {
    for item in scene.items.iter().filter(|i| i.each || i.is_split() && i.kind != Kind::Photo) {
        let (ids, name) = (ids_of(scene, item), names_of(scene.sketch, item));
        let parts: Vec<&LayoutBlock> = layout.blocks.iter().filter(|b| b.from == ids).collect();
        let names: Vec<String> = parts.iter().map(|p| p.block.id.clone()).collect();
        let size = size_text(scene, parts[0].extent().w(), parts[0].extent().h());
        let how = if item.each { "stands once on each page" } else { "becomes a pair, one on each page" };
        let by_itself = ids.iter().any(|id| scene.request.doubled.contains(id));
        let why = if by_itself { "since the fold parts what it lay over" } else { "as you chose" };
        said.push(format!("The {name} {how}, {why}: {}, {size} each.", list(&names)));
    }
    for choice in scene.request.at_fold.iter().filter(|_| scene.fold().is_some()) {
        let item = scene.item_of(&choice.block).map(|n| &scene.items[n]);
        if let Some(item) = item.filter(|i| matches!(choice.way, FoldWay::Each | FoldWay::Pair) && !i.is_split()) {
            said.push(format!("The {} does not stand at the fold here, so it stays one.", names_of(scene.sketch, item)));
        }
    }
}

/// Photos that touched, and photos a narrow gap apart.
fn contacts(said: &mut Vec<String>, scene: &Scene<'_>, measures: &Measures) {
    let photos: Vec<&Group> = measures.groups.iter().filter(|g| g.kind == Kind::Photo && g.parts == 1).collect();
    for (n, a) in photos.iter().enumerate() {
        for b in &photos[n + 1..] {
            for (x, y) in [(a, b), (b, a)] {
                for in_x in [true, false] {
                    let (drawn, here) = (distance(x.drawn, y.drawn, in_x), distance(x.here, y.here, in_x));
                    if !face(x.drawn, y.drawn, in_x) || drawn.abs() > INCH / 2.0 {
                        continue;
                    }
                    let id = |g: &Group| scene.sketch.blocks[g.blocks[0]].id.clone();
                    let names = list(&[id(x), id(y)]);
                    if drawn.abs() <= AGREE && here.abs() <= KEPT {
                        said.push(format!("Photos {names} still touch."));
                    } else if drawn > AGREE && (here - drawn).abs() > KEPT {
                        said.push(format!("The gap between photos {names} goes from {} to {}.", text(scene, drawn), text(scene, here)));
                    }
                }
            }
        }
    }
}

fn moves(said: &mut Vec<String>, scene: &Scene<'_>, chosen: &Chosen, measures: &Measures) {
    let canvas = scene.request.target.span();
    let mut far: Vec<(f64, &Group)> =
        measures.groups.iter().map(|g| (g.drift(canvas), g)).filter(|(d, g)| *d >= WORTH_SAYING && g.kind != Kind::Mat).collect();
    far.sort_by(|a, b| b.0.total_cmp(&a.0));
    for (_, group) in far.into_iter().take(MOST_MOVES) {
        let (dx, dy) = (group.here.cx() - group.want.cx(), group.here.cy() - group.want.cy());
        let across = dx.abs() / canvas.w() >= dy.abs() / canvas.h();
        let way = match (across, dx > 0.0, dy > 0.0) {
            (true, true, _) => "right",
            (true, false, _) => "left",
            (false, _, true) => "down",
            (false, _, false) => "up",
        };
        let by = text(scene, if across { dx.abs() } else { dy.abs() });
        let item = scene.items.iter().position(|i| i.from == group.blocks || i.from.contains(&group.blocks[0]));
        let Some(n) = item else { continue };
        let why = why::of_move(scene, chosen, n, across, if across { dx } else { dy });
        let why = why.unwrap_or_else(|| "to suit its neighbours".to_owned());
        said.push(format!("The {} moves {by} {way}, {why}.", names_of(scene.sketch, &scene.items[n])));
    }
}

fn trims(said: &mut Vec<String>, scene: &Scene<'_>, layout: &Layout) {
    for parts in layout.each_photo() {
        let Some((keep, placed)) = kept_in(&parts).zip(parts[0].placed.as_ref()) else { continue };
        let trimmed = 1.0 - keep.w * keep.h;
        if trimmed > TRIM_SAID {
            let (w, h) = (placed.print.w.ticks() as f64, placed.print.h.ticks() as f64);
            let (full, shows) = (size_text(scene, w, h), size_text(scene, w * keep.w, h * keep.h));
            let id = &parts[0].block.id;
            said.push(format!("Print {} is trimmed from {full} to {shows} in {id}: {:.0} % comes off.", placed.photo, trimmed * 100.0));
        }
        faces(said, scene, keep, &placed.photo);
    }
    if let Photos::Prints(prints) = &scene.request.photos
        && scene.request.whole
    {
        said.push(if prints.len() == 1 { "The print keeps its size.".to_owned() } else { format!("All {} prints keep their size.", prints.len()) });
    }
}

/// What no slot could show whole.
fn faces(said: &mut Vec<String>, scene: &Scene<'_>, keep: layout::Keep, photo: &str) {
    let Photos::Prints(prints) = &scene.request.photos else { return };
    let cut = |f: &&Face| {
        let (right, bottom) = (keep.x + keep.w, keep.y + keep.h);
        f.x < keep.x - FACE_CUT || f.y < keep.y - FACE_CUT || f.x + f.w > right + FACE_CUT || f.y + f.h > bottom + FACE_CUT
    };
    let lost = prints.iter().filter(|p| p.id == photo).flat_map(|p| &p.faces).filter(cut).count();
    if lost > 0 {
        let what = if lost == 1 { "a marked face is".to_owned() } else { format!("{lost} marked faces are") };
        said.push(format!("Of print {photo} {what} not shown whole: its slot is too small for that. Another print, or a larger slot, would do."));
    }
}

fn over_fold(said: &mut Vec<String>, scene: &Scene<'_>, layout: &Layout) {
    for pair in layout.blocks.windows(2) {
        let (a, b) = (&pair[0], &pair[1]);
        // What stands once on each page does not meet at the fold.
        if a.from != b.from || a.from.is_empty() || a.page == b.page || (a.extent().r - b.extent().l).abs() > 1.0 {
            continue;
        }
        let parts = format!("{} + {}", text(scene, a.extent().w()), text(scene, b.extent().w()));
        let word = a.block.kind.word();
        let broken = scene.item_of(&a.from[0]).and_then(|n| broken(&scene.items[n], scene, a.extent().l, b.extent().r)).unwrap_or_default();
        said.push(format!(
            "The {word} {} runs over the fold in two parts, {} and {}: {parts} wide{broken}.",
            a.from.join(" and "),
            a.block.id,
            b.block.id
        ));
    }
    for choice in scene.request.at_fold.iter().filter(|c| scene.fold().is_some() && c.way == FoldWay::Across) {
        let parts = layout.blocks.iter().filter(|b| b.from.contains(&choice.block)).count();
        if parts == 1 {
            said.push(format!("The title {} does not stand at the fold here, so it stays whole.", choice.block));
        }
    }
}

/// Between which units or words the fold comes, for what lies between two edges in ticks.
fn broken(item: &Item, scene: &Scene<'_>, left: f64, right: f64) -> Option<String> {
    let fold = scene.fold()?;
    if let Some(choice) = scene.runs_across(item) {
        let at = (fold * INCH - left) / (right - left);
        let space = choice.spaces().iter().position(|(begin, end)| begin - 1e-3 <= at && at <= end + 1e-3)?;
        let (before, after) = choice.words.split_at(space + 1);
        return Some(format!(", \u{201c}{}\u{201d} on the left and \u{201c}{}\u{201d} on the right", before.join(" "), after.join(" ")));
    }
    item.grid?;
    let Some(at) = scene.unit_break(item) else { return Some("; it cuts through its units, as drawn".to_owned()) };
    if at.off(left / INCH, right / INCH, fold).abs() > at.give() + AGREE / INCH {
        return Some("; it cuts through its units".to_owned());
    }
    Some(format!(", {} of its {} columns on the left", at.left, at.cols))
}

fn units(said: &mut Vec<String>, scene: &Scene<'_>) {
    for item in scene.items {
        let Some((new, old)) = item.grid else { continue };
        if (new.cols, new.rows) != (old.cols, old.rows) {
            let id = &scene.sketch.blocks[item.from[0]].id;
            said.push(format!(
                "The grid {id} goes from {} × {} to {} × {} units, so that its units keep their shape.",
                old.cols, old.rows, new.cols, new.rows
            ));
        }
    }
}

/// Borders are absolutes; one sentence for all that are even and alike.
fn mats(said: &mut Vec<String>, scene: &Scene<'_>) {
    let mut even: Vec<(f64, Vec<String>)> = Vec::new();
    for item in scene.items {
        let Some((_, borders)) = item.frames else { continue };
        if borders.iter().any(|b| (b - borders[0]).abs() > 1.0) {
            continue;
        }
        match even.iter_mut().find(|e| (e.0 - borders[0]).abs() < 1.0) {
            Some(known) => known.1.extend(ids_of(scene, item)),
            None => even.push((borders[0], ids_of(scene, item))),
        }
    }
    for (border, ids) in even {
        let one = ids.len() == 1;
        said.push(format!(
            "The {} of {} {} {}.",
            if one { "border" } else { "borders" },
            list(&ids),
            if one { "stays" } else { "stay" },
            text(scene, border)
        ));
    }
}

fn lost_lines(said: &mut Vec<String>, scene: &Scene<'_>, measures: &Measures) {
    // A line that the maker has switched off is not missed.
    let held = |place: Place, n: usize| {
        let id = &scene.sketch.blocks[measures.groups[n].blocks[0]].id;
        scene.request.holds.heeds(What::Line(place), id) && scene.request.holds.keep_of(id) != Some(Keep::Free)
    };
    let lost: Vec<_> = measures.lost_lines.iter().filter(|(place, a, b)| !place.is_centre() && held(*place, *a) && held(*place, *b)).collect();
    for (place, a, b) in lost.iter().take(MOST_MOVES) {
        let id = |n: &usize| scene.sketch.blocks[measures.groups[*n].blocks[0]].id.clone();
        said.push(format!("The {} of {} no longer agree.", place.name(), list(&[id(a), id(b)])));
    }
    if lost.len() > MOST_MOVES {
        said.push(format!("{} more edges no longer agree.", lost.len() - MOST_MOVES));
    }
}

/// One page's photos on two pages leave a lot of open page: say so.
fn open_spread(said: &mut Vec<String>, scene: &Scene<'_>) {
    let slots = scene.sketch.photo_slots();
    let shown = scene.request.photo_count().unwrap_or(slots);
    if scene.request.target.pages == 2 && scene.sketch.canvas.pages == 1 && slots > 0 && shown <= slots && scene.map.sx > 1.5 {
        let photos = if shown == 1 { "photo" } else { "photos" };
        let leave = if shown == 1 { "leaves" } else { "leave" };
        said.push(format!("{shown} {photos} on two pages {leave} much of the spread open; {} would fill the slots.", slots * 2));
    }
}
