//! How a piece is fixed, by what it is made of and what lies over and under it.

use super::thing::Thing;
use crate::length::Length;
use crate::photos::Lift;
use crate::stash::{Form, Material};

/// Heavier than this, in thickness: foam or strong glue holds it, tape doesn't.
const THICK: Length = Length::inches(3, 32);

/// How one piece is fixed.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Fixing {
    /// What holds it.
    pub with: String,
    /// What can't be done, or what to mind.
    pub mind: Option<String>,
}

fn held(with: impl Into<String>) -> Fixing {
    Fixing {
        with: with.into(),
        mind: None,
    }
}

/// How a piece is fixed. `over` is what lies on part of it, `under` what it lies on; the nearest first.
pub fn fixing(thing: &Thing, lift: Lift, over: &[&Thing], under: &[&Thing]) -> Fixing {
    if thing.material.shows_glue() {
        return see_through(thing, over, under);
    }
    match lift {
        Lift::ThinFoam => return held("thin foam"),
        Lift::ThickFoam => return held("thick foam"),
        Lift::Card => return held("card behind, tape"),
        Lift::Flat => {}
    }
    match thing.material {
        Material::Wood => Fixing {
            with: "wet glue".to_owned(),
            mind: Some("no staple goes through wood".to_owned()),
        },
        Material::Metal => held("strong glue, pressed until it holds"),
        Material::Plastic => held("a drop of wet glue"),
        Material::Chipboard if thing.thickness >= THICK => held("wet glue, weighed down"),
        Material::Chipboard => held("wet glue"),
        Material::Fabric => held("a thin line of fabric glue"),
        Material::Paper | Material::Card => match thing.form {
            Form::Leaf => held("wet glue at the stem, so that it lifts"),
            Form::Flower => held("wet glue in the middle only, so that the petals lift"),
            Form::Doily => held("tape in the middle"),
            _ if is_slim(thing) => held("wet glue, the edges are too slim for tape"),
            _ => held("tape"),
        },
        Material::Acetate | Material::Vellum => see_through(thing, over, under),
    }
}

/// A piece narrower than tape is.
fn is_slim(thing: &Thing) -> bool {
    thing.size.w.min(thing.size.h) < Length::inches(3, 8)
}

/// Clear film and vellum show their glue: it is hidden under what lies over them, or staples hold them.
fn see_through(thing: &Thing, over: &[&Thing], under: &[&Thing]) -> Fixing {
    if let Some(cover) = over.iter().find(|t| !t.material.shows_glue()) {
        return held(format!("glue where “{}” hides it", cover.name));
    }
    let hard = under.iter().find(|t| !t.material.can_be_stapled());
    match hard {
        Some(hard) => Fixing {
            with: "nothing that holds unseen".to_owned(),
            mind: Some(format!(
                "glue shows through it, and no staple goes through “{}” below: tuck it under something, or lay something over it",
                hard.name
            )),
        },
        None if thing.size.w.min(thing.size.h) < Length::inches(1, 2) => {
            held("one small staple in the middle")
        }
        None => held("two small staples, one at each end"),
    }
}
