//! How much of a paper's picture there is where: for shapes of a die that are to lie where the picture is best.

use crate::compute::Work;
use crate::features::pictures::routes::original;
use crate::http::error::Failure;
use crate::state::App;
use metrosk_core::papers::{PaperDecisions, PaperDetail, PaperSide};
use metrosk_core::stash::Item;
use std::collections::BTreeMap;
use uuid::Uuid;

/// The details of the papers whose hidden middles a die cuts, by the names of their pieces. Papers without a picture have none.
pub(crate) async fn paper_details(
    app: &App,
    team: Uuid,
    papers: &PaperDecisions,
    items: &BTreeMap<String, Item>,
) -> Result<BTreeMap<String, PaperDetail>, Failure> {
    let mut found = BTreeMap::new();
    for name in papers.gut.dies.keys() {
        let Some(side) = paper_of(papers, name) else {
            continue;
        };
        let item = items.get(&side.item);
        let look = item.map(|item| item.side(side.side()).unwrap_or(&item.a));
        let pictured = look.and_then(|look| Some((look.picture.as_deref()?, look.tile?)));
        let Some((picture, tile)) = pictured else {
            continue;
        };
        let Ok(picture) = Uuid::parse_str(picture) else {
            continue;
        };
        // A picture that is gone leaves the shapes in rows.
        let Ok(bytes) = original(app, team, picture).await else {
            continue;
        };
        let work = move |_: &metrosk_core::Cancel| {
            let pixels = metrosk_vision::decode(&bytes).ok()?.pixels;
            let (columns, places) = metrosk_vision::detail(&pixels);
            Some(PaperDetail {
                tile,
                columns,
                places,
            })
        };
        if let Some(detail) = app.compute.run(team, Work::Picture, work).await? {
            found.insert(name.clone(), detail);
        }
    }
    Ok(found)
}

/// The paper of a piece that is gutted: `ground-0`, or `BLOCK/PART`.
fn paper_of<'a>(papers: &'a PaperDecisions, name: &str) -> Option<&'a PaperSide> {
    if let Some(page) = name.strip_prefix("ground-") {
        return papers.ground.get(page.parse::<usize>().ok()?)?.as_ref();
    }
    let (block, part) = name.rsplit_once('/')?;
    let of = (block.to_owned(), part.parse().ok()?);
    papers.pieces.get(&of)?.paper.as_ref()
}
