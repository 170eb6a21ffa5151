//! What is wet: priming and painting the ground, before anything lies on it.

use super::decisions::Technique;
use super::graph::{Draft, is_painted};
use super::step::{Caution, Doing, Reason, Step};

/// Minutes of work, and minutes that it dries.
const GESSO: (u32, u32) = (8, 20);
const PAINT: (u32, u32) = (8, 25);

pub(super) fn ground(draft: &mut Draft<'_>) {
    let primed = draft
        .making
        .decisions
        .techniques
        .contains(&Technique::Gesso);
    let gesso = primed.then(|| {
        let text = "Prime the ground thinly".to_owned();
        let step = Step::new("gesso".to_owned(), Doing::Gesso, text, GESSO.0);
        draft.add(
            step.dries(GESSO.1)
                .hint("Thin coats dry sooner and buckle less.")
                .caution(Caution::Paint),
        )
    });
    for block in draft.blocks().iter().filter(|b| is_painted(b)) {
        let id = block.block.id.as_str();
        let text = format!("Paint {id}: {}", draft.place(block));
        let step = Step::new(format!("paint {id}"), Doing::Paint, text, PAINT.0);
        let paint = draft.add(step.fixes(id).dries(PAINT.1).caution(Caution::Paint));
        if let Some(gesso) = gesso {
            draft.before(gesso, paint, Reason::Primed);
        }
    }
}
