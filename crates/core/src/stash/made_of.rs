//! What pieces to decorate with are made of, and what they look like.

/// What a piece is made of; how it is fixed goes by that.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Material {
    /// Paper as thin as a sheet.
    #[default]
    Paper,
    /// Heavy paper.
    Card,
    /// Thick board.
    Chipboard,
    /// Wood.
    Wood,
    /// Clear film.
    Acetate,
    /// Paper that glue shows through.
    Vellum,
    /// Cloth, ribbon, felt.
    Fabric,
    /// Metal.
    Metal,
    /// Buttons, enamel, resin.
    Plastic,
}

impl Material {
    /// The names that documents use.
    pub const NAMES: [&'static str; 9] = [
        "paper",
        "card",
        "chipboard",
        "wood",
        "acetate",
        "vellum",
        "fabric",
        "metal",
        "plastic",
    ];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The material of that document name.
    pub fn from_name(name: &str) -> Option<Material> {
        use Material::{Acetate, Card, Chipboard, Fabric, Metal, Paper, Plastic, Vellum, Wood};
        let all = [
            Paper, Card, Chipboard, Wood, Acetate, Vellum, Fabric, Metal, Plastic,
        ];
        all.into_iter().find(|m| m.name() == name)
    }

    /// Whether a staple goes through it.
    pub const fn can_be_stapled(self) -> bool {
        matches!(
            self,
            Material::Paper
                | Material::Card
                | Material::Acetate
                | Material::Vellum
                | Material::Fabric
        )
    }

    /// Whether glue under it is seen.
    pub const fn shows_glue(self) -> bool {
        matches!(self, Material::Acetate | Material::Vellum)
    }
}

/// What a piece looks like, roughly.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Form {
    /// An upright rectangle.
    #[default]
    Plain,
    /// A disc.
    Round,
    /// A disc with a lacy edge.
    Doily,
    /// A disc with holes.
    Button,
    /// A star.
    Star,
    /// A heart.
    Heart,
    /// A leaf, its stem to the left.
    Leaf,
    /// A flower.
    Flower,
    /// A tag with a hole.
    Tag,
    /// A kite.
    Kite,
    /// A pennant.
    Flag,
    /// A sledge.
    Sledge,
    /// Words on a strip.
    Phrase,
}

impl Form {
    /// The names that documents use.
    pub const NAMES: [&'static str; 13] = [
        "plain", "round", "doily", "button", "star", "heart", "leaf", "flower", "tag", "kite",
        "flag", "sledge", "phrase",
    ];

    const ALL: [Form; 13] = [
        Form::Plain,
        Form::Round,
        Form::Doily,
        Form::Button,
        Form::Star,
        Form::Heart,
        Form::Leaf,
        Form::Flower,
        Form::Tag,
        Form::Kite,
        Form::Flag,
        Form::Sledge,
        Form::Phrase,
    ];

    /// Its document name.
    pub const fn name(self) -> &'static str {
        Self::NAMES[self as usize]
    }

    /// The form of that document name.
    pub fn from_name(name: &str) -> Option<Form> {
        Form::ALL.into_iter().find(|f| f.name() == name)
    }

    /// Whether it lies at the bottom of a stack.
    pub const fn is_base(self) -> bool {
        matches!(self, Form::Doily | Form::Leaf | Form::Tag)
    }

    /// Whether it looks the same however it is turned.
    pub const fn is_round(self) -> bool {
        matches!(
            self,
            Form::Round | Form::Doily | Form::Button | Form::Flower
        )
    }
}
