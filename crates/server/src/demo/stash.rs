//! The demo's stash: the club's kits, with pictures of their papers.

use crate::App;
use crate::features::pictures::routes::{NewPicture, Prepared, keep, prepared};
use crate::features::pictures::store as pictures;
use crate::features::stash::routes::columns;
use crate::features::stash::store as stash;
use metrosk_core::stash::Item;
use metrosk_demo::{StashThing, things};
use sqlx::PgTransaction;
use std::sync::OnceLock;
use uuid::Uuid;

/// How many colours of a side count.
const COLOURS: usize = 6;

/// A side's picture, and its colours with their shares.
#[derive(Clone)]
struct Side {
    ready: Prepared,
    colours: Vec<(String, f64)>,
}

/// The pictures of all sides, made once a process.
fn sides(share: f64) -> anyhow::Result<&'static [Vec<Side>]> {
    static MADE: OnceLock<Vec<Vec<Side>>> = OnceLock::new();
    if MADE.get().is_none() {
        let made = things().iter().map(|thing| sides_of(thing, share));
        let _ = MADE.set(made.collect::<anyhow::Result<_>>()?);
    }
    Ok(MADE.get().map_or(&[], Vec::as_slice))
}

fn sides_of(thing: &StashThing, share: f64) -> anyhow::Result<Vec<Side>> {
    let side = |side: &metrosk_demo::PaperSide| {
        let tile = side.render(share)?;
        let swatches = metrosk_vision::swatches(&tile, COLOURS);
        let swatch = |s: &metrosk_vision::Swatch| (s.hex(), (s.share * 1e3).round() / 1e3);
        Ok(Side {
            ready: prepared(&metrosk_vision::jpeg(&tile, 90)?)?,
            colours: swatches.iter().map(swatch).collect(),
        })
    };
    thing.sides.iter().map(side).collect()
}

/// Puts the club's things into a team's stash.
pub(super) async fn put_away(
    app: &App,
    tx: &mut PgTransaction<'_>,
    team: Uuid,
) -> anyhow::Result<()> {
    for (n, (thing, sides)) in things()
        .iter()
        .zip(sides(app.settings.demo_photos)?)
        .enumerate()
    {
        for (at, side) in sides.iter().enumerate() {
            let id = Uuid::parse_str(&StashThing::picture(n, at))?;
            let name = thing.sides.get(at).map_or(thing.name, |s| s.name);
            let new = NewPicture {
                id,
                name: name.to_owned(),
                made_by: "Wren",
                is_photo: false,
            };
            keep(app, tx, team, new, side.ready.clone()).await?;
            pictures::mark_as_paper(&mut **tx, team, id).await?;
        }
        let colours: Vec<Vec<(String, f64)>> = sides.iter().map(|s| s.colours.clone()).collect();
        let item = Item::from_json(&thing.item(n, &colours))?;
        let (document, words) = (item.to_json(), item.words());
        let id = Uuid::parse_str(&StashThing::id(n))?;
        stash::insert(
            &mut **tx,
            team,
            id,
            columns(&item, &document, &words, None),
            "Wren",
        )
        .await?;
    }
    Ok(())
}
