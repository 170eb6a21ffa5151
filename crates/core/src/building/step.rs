//! Steps and the reasons why one comes before another, with their words.

/// What is done in a step.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
#[allow(missing_docs, reason = "each is what it is called")]
pub enum Doing {
    Print,
    Cut,
    Gesso,
    Paint,
    Roughen,
    TakeOutMiddle,
    Mount,
    Write,
    LayOut,
    Glue,
    Stitch,
    Tuck,
    Place,
    SetTitle,
    CoverPhotos,
    Spatter,
    RoundCorners,
    Photograph,
    PutAway,
}

/// Where a hand can be hurt.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[allow(missing_docs, reason = "each is what it is called")]
pub enum Caution {
    Blade,
    Needle,
    Paint,
    SmallParts,
}

impl Caution {
    /// Its name in documents.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Caution::Blade => "blade",
            Caution::Needle => "needle",
            Caution::Paint => "paint",
            Caution::SmallParts => "small-parts",
        }
    }

    /// What a friend would say.
    #[must_use]
    pub const fn text(self) -> &'static str {
        match self {
            Caution::Blade => {
                "Blade: cut away from your hand, keep fingers off the rule's edge, and cap it before you reach for anything. Follow the maker's instructions."
            }
            Caution::Needle => {
                "Needle: hold the page flat with the other hand behind the needle, and count needles before and after."
            }
            Caution::Paint => {
                "Paint and sprays: open a window, mind your eyes, keep children and animals away until it is dry, and follow the maker's instructions and local rules."
            }
            Caution::SmallParts => {
                "Small parts and magnets: keep them away from small children and animals."
            }
        }
    }
}

/// Why one step comes before another.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
#[allow(missing_docs, reason = "each is told by its text")]
pub enum Reason {
    PrintedFirst,
    CutFirst,
    Primed,
    PaintDries,
    RoughenedLoose,
    MiddleOut,
    MatFirst,
    WrittenFlat,
    MeasuredFirst,
    LiesUnder,
    TuckedUnder,
    NeedleFirst,
    SitsOn,
    PhotosCovered,
    SpatterLast,
    AllThere,
    Dry,
    PictureFirst,
}

impl Reason {
    /// Why, from the view of the later step.
    #[must_use]
    pub const fn text(self) -> &'static str {
        match self {
            Reason::PrintedFirst => "The photos have to be printed.",
            Reason::CutFirst => "It has to be cut.",
            Reason::Primed => "The ground has to be primed, and dry.",
            Reason::PaintDries => "The paint has to be dry before anything lies on it.",
            Reason::RoughenedLoose => "Edges are worked while the piece is loose.",
            Reason::MiddleOut => "The hidden middle comes out while its cover is not glued.",
            Reason::MatFirst => "The mat and what lies on it go down as one.",
            Reason::WrittenFlat => "Writing is easier on a loose card.",
            Reason::MeasuredFirst => "All is laid out dry and measured before the first glue.",
            Reason::LiesUnder => "It lies under this.",
            Reason::TuckedUnder => "This is tucked under it: one side stays open until then.",
            Reason::NeedleFirst => "The needle must not go through what comes on top.",
            Reason::SitsOn => "This sits on it.",
            Reason::PhotosCovered => "Photos are covered before paint flies.",
            Reason::SpatterLast => "Spatter falls over all that is there.",
            Reason::AllThere => "All of the page has to be there.",
            Reason::Dry => "It has to be dry.",
            Reason::PictureFirst => "In its protector the page shines back at the camera.",
        }
    }

    /// What is no longer possible when the two change places.
    #[must_use]
    pub const fn lost(self) -> &'static str {
        match self {
            Reason::PrintedFirst => "there is no photo yet to go on with",
            Reason::CutFirst => "there is no piece yet to go on with",
            Reason::Primed => "the ground can't be primed under what lies on it",
            Reason::PaintDries => "paint would wet what is glued over it",
            Reason::RoughenedLoose => "edges that are glued down can't be worked",
            Reason::MiddleOut => "the middle can't come out under a cover that is glued",
            Reason::MatFirst => "the mat would go down without what lies on it",
            Reason::WrittenFlat => "you would write on the bumpy page",
            Reason::MeasuredFirst => "what is glued can't be laid out any more",
            Reason::LiesUnder => "it can't get under what is glued",
            Reason::TuckedUnder => "nothing is there to tuck it under",
            Reason::NeedleFirst => "the needle would go through what lies on top",
            Reason::SitsOn => "there is nothing for it to sit on",
            Reason::PhotosCovered => "paint would fall on the photos",
            Reason::SpatterLast => "spatter would be hidden by what comes after",
            Reason::AllThere => "the page isn't all there yet",
            Reason::Dry => "it would smear",
            Reason::PictureFirst => "the protector would shine in the picture",
        }
    }
}

/// One step.
#[derive(Clone, Debug, PartialEq)]
pub struct Step {
    /// The same for the same work on the same thing, whatever else changes.
    pub id: String,
    /// What is done.
    pub doing: Doing,
    /// What to do, with blocks by their layout ids and lengths as makers write them.
    pub text: String,
    /// What else to know.
    pub hint: String,
    /// Blocks of the layout that it fixes for good.
    pub fixes: Vec<String>,
    /// Blocks that it works on.
    pub on: Vec<String>,
    /// Minutes of work.
    pub minutes: u32,
    /// Minutes that it dries afterwards.
    pub dries: u32,
    /// What to check before: after it there is no way back.
    pub no_return: Option<String>,
    /// Where a hand can be hurt.
    pub caution: Option<Caution>,
}

impl Step {
    /// A step with nothing but its work.
    pub(super) fn new(id: String, doing: Doing, text: String, minutes: u32) -> Step {
        Step {
            id,
            doing,
            text,
            hint: String::new(),
            fixes: Vec::new(),
            on: Vec::new(),
            minutes,
            dries: 0,
            no_return: None,
            caution: None,
        }
    }

    pub(super) fn on(mut self, blocks: &[&str]) -> Step {
        self.on = blocks.iter().map(|b| (*b).to_owned()).collect();
        self
    }

    pub(super) fn fixes(mut self, block: &str) -> Step {
        self.fixes.push(block.to_owned());
        self.on.push(block.to_owned());
        self
    }

    pub(super) fn hint(mut self, hint: &str) -> Step {
        hint.clone_into(&mut self.hint);
        self
    }

    pub(super) fn dries(mut self, minutes: u32) -> Step {
        self.dries = minutes;
        self
    }

    pub(super) fn no_return(mut self, check: &str) -> Step {
        self.no_return = Some(check.to_owned());
        self
    }

    pub(super) fn caution(mut self, caution: Caution) -> Step {
        self.caution = Some(caution);
        self
    }
}

/// One step has to come before another.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Edge {
    /// By its place among the steps.
    pub before: usize,
    /// By its place.
    pub after: usize,
    /// Why.
    pub reason: Reason,
    /// Minutes between the end of the one and the start of the other.
    pub lag: u32,
}
