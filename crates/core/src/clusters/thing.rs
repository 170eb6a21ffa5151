//! A piece to decorate with, as far as clusters need to know it.

use crate::geometry::Size;
use crate::length::Length;
use crate::stash::{Colour, Form, Item, ItemKind, Material};

/// As large as a piece is taken to be whose size nobody said.
const USUAL: Length = Length::inches(3, 4);
/// As thick as pieces of a material are, where nobody measured.
const fn usual_thickness(material: Material) -> Length {
    match material {
        Material::Paper | Material::Vellum | Material::Acetate => Length::inches(1, 100),
        Material::Card | Material::Fabric => Length::inches(1, 32),
        Material::Chipboard | Material::Metal => Length::inches(1, 16),
        Material::Wood | Material::Plastic => Length::inches(1, 8),
    }
}

/// A piece to decorate with.
#[derive(Clone, Debug, PartialEq)]
pub struct Thing {
    /// The stash's id.
    pub item: String,
    /// What she calls it.
    pub name: String,
    /// How large one is.
    pub size: Size,
    /// How thick.
    pub thickness: Length,
    /// What it is made of.
    pub material: Material,
    /// What it looks like.
    pub form: Form,
    /// The colour that most of it has.
    pub colour: Option<Colour>,
}

impl Thing {
    /// A thing of the stash; what nobody said of it is taken from its kind.
    pub fn of(id: &str, item: &Item) -> Thing {
        let usual = match item.kind {
            ItemKind::Card | ItemKind::Cardstock | ItemKind::Packaging => Material::Card,
            ItemKind::Vellum => Material::Vellum,
            ItemKind::Acetate => Material::Acetate,
            _ => Material::Paper,
        };
        let material = item.material.unwrap_or(usual);
        Thing {
            item: id.to_owned(),
            name: item.name.clone(),
            size: item.size.unwrap_or(Size { w: USUAL, h: USUAL }),
            thickness: item.thickness.unwrap_or(usual_thickness(material)),
            material,
            form: item.form.unwrap_or_default(),
            colour: item.a.ground(),
        }
    }

    /// How much of the page it covers, in square ticks.
    pub(super) fn area(&self) -> f64 {
        self.size.w.ticks() as f64 * self.size.h.ticks() as f64
    }
}
