//! What is done when all is there: spatter over covered photos, corners, the picture, the protector.

use super::decisions::Technique;
use super::graph::Draft;
use super::step::{Caution, Doing, Reason, Step};
use crate::sketch::Kind;

/// Minutes.
const COVER: u32 = 3;
const SPATTER: (u32, u32) = (3, 15);
const CORNERS: u32 = 2;
const PHOTOGRAPH: u32 = 5;
const PUT_AWAY: u32 = 2;

pub(super) fn steps(draft: &mut Draft<'_>) {
    let there: Vec<usize> = (0..draft.steps.len()).collect();
    if there.is_empty() {
        return;
    }
    let wants = |t| draft.making.decisions.techniques.contains(&t);
    let (spattered, rounded) = (wants(Technique::Spatter), wants(Technique::RoundCorners));
    let spatter = spattered.then(|| spatter(draft, &there));
    let corners = rounded.then(|| {
        let text = "Round the page’s corners".to_owned();
        let step = Step::new("corners".to_owned(), Doing::RoundCorners, text, CORNERS);
        let corners = draft.add(step.caution(Caution::Blade));
        for before in &there {
            draft.before(*before, corners, Reason::AllThere);
        }
        corners
    });
    let text = "Photograph the page, in daylight and from straight above".to_owned();
    let photograph = draft.add(Step::new(
        "photograph".to_owned(),
        Doing::Photograph,
        text,
        PHOTOGRAPH,
    ));
    let text = "Put the page into its protector".to_owned();
    let step = Step::new("put away".to_owned(), Doing::PutAway, text, PUT_AWAY);
    let put_away = draft.add(step.no_return("Check that all is dry, and that nothing is missing."));
    for before in there.into_iter().chain(corners) {
        draft.before(before, photograph, Reason::AllThere);
    }
    if let Some(spatter) = spatter {
        draft.before(spatter, photograph, Reason::SpatterLast);
        draft.before(spatter, put_away, Reason::Dry);
    }
    draft.before(photograph, put_away, Reason::PictureFirst);
}

fn spatter(draft: &mut Draft<'_>, there: &[usize]) -> usize {
    let photos = draft
        .blocks()
        .iter()
        .filter(|b| b.block.kind == Kind::Photo);
    let photos: Vec<&str> = photos.map(|b| b.block.id.as_str()).collect();
    let cover = (!photos.is_empty()).then(|| {
        let text = format!("Cover {} with scrap paper", photos.join(", "));
        let step = Step::new("cover photos".to_owned(), Doing::CoverPhotos, text, COVER);
        draft.add(step.on(&photos))
    });
    let text = "Spatter paint over the page".to_owned();
    let step = Step::new("spatter".to_owned(), Doing::Spatter, text, SPATTER.0)
        .dries(SPATTER.1)
        .no_return("Try the brush on scrap first: spatter can’t be taken back.")
        .caution(Caution::Paint);
    let spatter = draft.add(step);
    for before in there {
        let reason = Reason::SpatterLast;
        if let Some(cover) = cover {
            draft.before(*before, cover, reason);
        }
        draft.before(*before, spatter, reason);
    }
    if let Some(cover) = cover {
        draft.before(cover, spatter, Reason::PhotosCovered);
    }
    spatter
}
