//! Clusters: what they are made of, bottom to top, where each piece lies, how it is fixed, and how pieces are shared out over them.
//!
//! Pieces are laid by search with a stated cost ([`Surroundings`]): nothing over what must stay in sight, what should be hidden first, larger
//! pieces nearer the middle, each overlapping the stack as makers do. What she placed herself stays. A seed shuffles.

mod decisions;
mod fixing;
mod laid;
mod placing;
mod scatter;
mod sharing;
mod thing;

pub use decisions::{ClusterChoice, ClusterDecisions, ClusterPiece, Scatter, ScatterWay};
pub use fixing::{Fixing, fixing};
pub use laid::{LaidCluster, LaidClusters, LaidPiece, laid, main_photo_of};
pub use placing::{PlacedPiece, Surroundings, placed};
pub use scatter::scattered;
pub use sharing::{Share, shared_out};
pub use thing::Thing;
