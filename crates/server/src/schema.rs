//! The shapes that cross the wire, for OpenAPI and the client made from it. Documents are read and checked by the core;
//! what stands here of them says their shape only, and a test holds it against what the core writes.

mod answers;
mod documents;
mod people;
mod pictures;
mod plans;
mod readings;
mod requests;
mod views;

pub(crate) use answers::{ChangeDoc, ProposalsDoc, RefitDoc};
pub(crate) use documents::{LayoutDoc, SketchDoc};
pub(crate) use people::{
    DefaultsDoc, InviteView, LinkView, MeView, MemberView, NameChange, NewInvite, NewPassword,
    NewPerson, PasswordByLink, PasswordLinkView, PersonChange, Role, RoleChange, SignIn,
    TeamChoice, TeamPeople, TeamView,
};
pub(crate) use pictures::{
    EdgesDoc, EdgesView, LiftView, LimitsView, PictureReading, PictureView, SwatchView,
};
pub(crate) use plans::PlanDoc;
pub(crate) use readings::{
    AgreeDoc, EqualView, GapView, LineView, LinesView, MirroredView, NearView, NumbersDoc,
    NumbersView, ReadingView, WordErrorView,
};
pub(crate) use requests::FitDoc;
pub(crate) use views::{
    DetailsView, EventView, JobView, NewPage, NewVersion, PageCard, PageChange, PageView,
    PlanChange, Return, RevisionPlan, RevisionView, SketchChange, SketchRevisionView, SketchView,
    StationView, Step, StepView, TrailView, VersionView,
};

#[cfg(test)]
mod tests {
    use super::*;
    use metrosk_core::fit::{Outcome, fit};
    use metrosk_core::plan;

    /// What the core writes fits the shapes told here, and nothing that they tell of is lost on the way.
    #[test]
    fn the_documents_of_the_core_have_these_shapes() {
        let sketches = metrosk_demo::sketches(metrosk_demo::SEED);
        assert!(sketches.len() >= 3);
        for sketch in sketches {
            let plan = plan::start(&sketch, &plan::Defaults::default());
            let told: PlanDoc = serde_json::from_value(plan.clone()).unwrap();
            let told = serde_json::to_value(told).unwrap();
            assert_eq!(
                told["fit"]["target"]["margin"].as_f64(),
                plan["fit"]["target"]["margin"].as_f64()
            );
            let request = plan::Plan::from_json(&plan).unwrap().request();
            let Outcome::Proposals(proposals) = fit(&request) else {
                panic!("{} fits its own page", sketch.name)
            };
            let written = Outcome::Proposals(proposals).to_json(request.unit);
            let told: ProposalsDoc = serde_json::from_value(written.clone()).unwrap();
            assert_eq!(
                told.proposals[0].layout.blocks.len(),
                written["proposals"][0]["layout"]["blocks"]
                    .as_array()
                    .unwrap()
                    .len()
            );
            let again = serde_json::to_value(&told.proposals[0].layout.blocks[0]).unwrap();
            assert_eq!(
                again["id"],
                written["proposals"][0]["layout"]["blocks"][0]["id"]
            );
        }
    }
}
