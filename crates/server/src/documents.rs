//! The shapes of the core's documents, for OpenAPI and the client made from it. The core reads and checks them; a test holds these shapes
//! against what it writes.

pub(crate) mod answers;
pub(crate) mod calls;
pub(crate) mod clusters;
pub(crate) mod log;
pub(crate) mod plans;
pub(crate) mod requests;
pub(crate) mod sketches;
pub(crate) mod words;

#[cfg(test)]
mod tests {
    use super::answers::ProposalsDoc;
    use super::plans::PlanDoc;
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
