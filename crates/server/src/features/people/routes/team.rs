//! A team's people, roles and invitations.

use crate::auth::{Auth, Lead, Member, Person, hash, new_token};
use crate::features::people::store::links::NewLink;
use crate::features::people::store::people::Changed;
use crate::features::people::store::{links, people, teams};
use crate::features::people::views::{
    InviteView, MeView, MemberView, NameChange, NewInvite, Role, RoleChange, TeamPeople,
};
use crate::features::sketches::archives;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id};
use crate::http::names;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, StatusCode};
use time::{Duration, OffsetDateTime};
use uuid::Uuid;

/// How long an invitation works.
const INVITE_LASTS: Duration = Duration::days(7);

/// The team's people; for a lead, its open invitations too.
#[utoipa::path(
    get, operation_id = "show_team", path = "/api/team", tag = "team",
    responses((status = 200, body = TeamPeople), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn show(
    State(app): State<App>,
    member: Member,
) -> Result<Json<TeamPeople>, Failure> {
    let team = member.team();
    let of = people::of_team(&app.pool, team).await?;
    let invites = if member.leads() {
        links::of_team(&app.pool, team).await?
    } else {
        Vec::new()
    };
    Ok(Json(TeamPeople {
        id: team,
        name: member.team.name,
        people: of
            .into_iter()
            .map(|p| MemberView {
                id: p.id,
                account: p.account,
                name: p.name,
                role: p.role,
            })
            .collect(),
        invites: invites
            .into_iter()
            .map(|l| InviteView {
                id: l.id,
                role: l.role,
                made_by: l.made_by,
                expires_at: l.expires_at,
                link: None,
            })
            .collect(),
    }))
}

/// Gives the team another name.
#[utoipa::path(
    put, operation_id = "rename_team", path = "/api/team", tag = "team", request_body = NameChange,
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn rename(
    State(app): State<App>,
    lead: Lead,
    Body(change): Body<NameChange>,
) -> Result<StatusCode, Failure> {
    teams::rename(&app.pool, lead.team(), &names::short("name", &change.name)?).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Makes another team, with herself as its lead, and goes there.
#[utoipa::path(
    post, operation_id = "make_team", path = "/api/teams", tag = "team", request_body = NameChange,
    responses(
        (status = 200, body = MeView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn make(
    State(app): State<App>,
    mut auth: Auth,
    Person(person): Person,
    Body(new): Body<NameChange>,
) -> Result<Json<MeView>, Failure> {
    let name = names::short("name", &new.name)?;
    let mut tx = app.pool.begin().await?;
    let team = teams::insert(&mut *tx, &name).await?;
    people::join(&mut *tx, team, person.id, "lead").await?;
    tx.commit().await?;
    let person = people::in_team(&app.pool, person.id, team)
        .await?
        .ok_or(Failure::Missing("team"))?;
    crate::features::people::routes::session::open(&app, &mut auth, &person).await
}

/// Makes a link that lets one person into the team, once, within seven days. It is shown this one time.
#[utoipa::path(
    post, operation_id = "invite", path = "/api/team/invites", tag = "team", request_body = NewInvite,
    responses(
        (status = 201, body = InviteView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn invite(
    State(app): State<App>,
    lead: Lead,
    Body(new): Body<NewInvite>,
) -> Result<(StatusCode, Json<InviteView>), Failure> {
    let token = new_token()?;
    let expires_at = OffsetDateTime::now_utc() + INVITE_LASTS;
    let role = new.role.name();
    let link = NewLink {
        hash: &hash(&token),
        team: Some(lead.team()),
        person: None,
        role,
        made_by: lead.name(),
        expires_at,
    };
    let id = links::insert(&app.pool, link).await?;
    let link = Some(format!("/join/{token}"));
    Ok((
        StatusCode::CREATED,
        Json(InviteView {
            id,
            role: role.to_owned(),
            made_by: lead.name().to_owned(),
            expires_at,
            link,
        }),
    ))
}

/// Makes a link with which a member sets a new password, once, within two days. It is shown this one time. The lead must lead every team
/// that the member is in: whoever has the link can sign in as her.
#[utoipa::path(
    post, operation_id = "make_password_link", path = "/api/team/people/{id}/password-link", tag = "team", params(("id" = Uuid, Path)),
    responses(
        (status = 201, body = InviteView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn password_link(
    State(app): State<App>,
    lead: Lead,
    Id(id): Id,
) -> Result<(StatusCode, Json<InviteView>), Failure> {
    let person = people::in_team(&app.pool, id, lead.team())
        .await?
        .ok_or(Failure::Missing("member"))?;
    if !people::is_led_by(&app.pool, id, lead.person.id).await? {
        let why = format!(
            "{} is in another team too, which you don't lead. Whoever keeps the server can make her a link.",
            person.name
        );
        return Err(Failure::Standing(why));
    }
    let (token, expires_at) = links::for_password(&app.pool, id, lead.name()).await?;
    let link = Some(format!("/password/{token}"));
    let role = person.role.unwrap_or_default();
    Ok((
        StatusCode::CREATED,
        Json(InviteView {
            id,
            role,
            made_by: lead.name().to_owned(),
            expires_at,
            link,
        }),
    ))
}

/// Takes an invitation back.
#[utoipa::path(
    delete, operation_id = "take_invite_back", path = "/api/team/invites/{id}", tag = "team", params(("id" = Uuid, Path)),
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn take_invite_back(
    State(app): State<App>,
    lead: Lead,
    Id(id): Id,
) -> Result<StatusCode, Failure> {
    if links::take_back(&app.pool, lead.team(), id).await? {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Failure::Missing("invitation"))
    }
}

/// Gives a member another role.
#[utoipa::path(
    put, operation_id = "change_role", path = "/api/team/people/{id}", tag = "team", params(("id" = Uuid, Path)), request_body = RoleChange,
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn change_role(
    State(app): State<App>,
    lead: Lead,
    Id(id): Id,
    Body(change): Body<RoleChange>,
) -> Result<StatusCode, Failure> {
    change_member(&app, &lead, id, Some(change.role)).await
}

/// Takes a member out of the team. What she made stays.
#[utoipa::path(
    delete, operation_id = "remove_member", path = "/api/team/people/{id}", tag = "team", params(("id" = Uuid, Path)),
    responses(
        (status = 204),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn remove(
    State(app): State<App>,
    lead: Lead,
    Id(id): Id,
) -> Result<StatusCode, Failure> {
    change_member(&app, &lead, id, None).await
}

async fn change_member(
    app: &App,
    lead: &Lead,
    id: Uuid,
    role: Option<Role>,
) -> Result<StatusCode, Failure> {
    let mut tx = app.pool.begin().await?;
    match people::change(&mut tx, lead.team(), id, role.map(Role::name)).await? {
        Changed::Missing => return Err(Failure::Missing("member")),
        Changed::LastLead => {
            return Err(Failure::Standing(
                "A team needs a lead: make somebody else a lead first.".to_owned(),
            ));
        }
        Changed::Done => tx.commit().await?,
    }
    Ok(StatusCode::NO_CONTENT)
}

/// All of the team's sketches and pages with their histories, as one archive (zip) of open documents, for moving house.
#[utoipa::path(
    get, operation_id = "export_team", path = "/api/team/export", tag = "team",
    responses(
        (status = 200, body = Vec<u8>, content_type = "application/zip"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn export(
    State(app): State<App>,
    lead: Lead,
) -> Result<(HeaderMap, Vec<u8>), Failure> {
    let bytes = archives::team(&app, lead.team(), &lead.team.name).await?;
    Ok((
        crate::http::extractors::download(
            "application/zip",
            &names::file_name(&lead.team.name, ".zip"),
        ),
        bytes,
    ))
}
