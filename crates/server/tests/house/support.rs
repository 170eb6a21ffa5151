//! A server with the demo, and who asks it.

use metrosk_server::{App, Settings, demo, router};
use metrosk_testkit::Database;
use reqwest::{Client, Method, RequestBuilder, StatusCode};
use serde_json::{Value, json};
use std::net::SocketAddr;

/// The whole router on a free port.
pub(crate) struct Server {
    pub(crate) address: String,
    pub(crate) app: App,
    pub(crate) database: Database,
}

/// Somebody with her own cookies.
pub(crate) struct Guest {
    pub(crate) client: Client,
    pub(crate) address: String,
}

impl Server {
    /// With the demo loaded.
    pub(crate) async fn start() -> Server {
        let server = Server::empty(Settings {
            demo: true,
            ..Settings::default()
        })
        .await;
        assert!(demo::load_once(&server.app).await.unwrap());
        assert!(
            !demo::load_once(&server.app).await.unwrap(),
            "the demo is loaded once"
        );
        server
    }

    /// With nobody in it.
    pub(crate) async fn empty(settings: Settings) -> Server {
        let database = Database::fresh().unwrap();
        let app = App::connect(&database.url, settings).await.unwrap();
        Server::of(app, database).await
    }

    /// What somebody has connected already.
    pub(crate) async fn of(app: App, database: Database) -> Server {
        Server {
            address: serve(app.clone()).await,
            app,
            database,
        }
    }

    /// The address of another server on the same database.
    pub(crate) async fn twin(&self) -> String {
        let app = App::connect(&self.database.url, Settings::default())
            .await
            .unwrap();
        serve(app).await
    }

    /// Somebody who is not signed in.
    pub(crate) fn stranger(&self) -> Guest {
        Guest {
            client: Client::builder().cookie_store(true).build().unwrap(),
            address: self.address.clone(),
        }
    }

    /// Somebody of the demo.
    pub(crate) async fn as_person(&self, account: &str) -> Guest {
        let guest = self.stranger();
        let (status, me) = guest
            .post(
                "/api/session",
                &json!({"account": account, "password": metrosk_demo::PASSWORD}),
            )
            .await;
        assert_eq!(status, StatusCode::OK, "{me}");
        guest
    }

    /// The club's lead.
    pub(crate) async fn as_wren(&self) -> Guest {
        self.as_person("wren").await
    }
}

impl Guest {
    pub(crate) fn request(&self, method: Method, path: &str) -> RequestBuilder {
        self.client
            .request(method, format!("{}{path}", self.address))
    }

    pub(crate) async fn get(&self, path: &str) -> (StatusCode, Value) {
        answer(self.request(Method::GET, path)).await
    }

    pub(crate) async fn post(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        answer(self.request(Method::POST, path).json(body)).await
    }

    pub(crate) async fn put(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        answer(self.request(Method::PUT, path).json(body)).await
    }

    pub(crate) async fn patch(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        answer(self.request(Method::PATCH, path).json(body)).await
    }

    pub(crate) async fn delete(&self, path: &str) -> (StatusCode, Value) {
        answer(self.request(Method::DELETE, path)).await
    }

    /// Changes a sketch, starting from its newest revision.
    pub(crate) async fn change_sketch(&self, path: &str, change: &Value) -> (StatusCode, Value) {
        let mut change = change.clone();
        change["revision"] = self.get(path).await.1["revision"].clone();
        self.put(path, &change).await
    }

    /// Puts another document in place of a sketch's, starting from its newest revision.
    pub(crate) async fn write_sketch(&self, path: &str, document: &Value) -> (StatusCode, Value) {
        let revision = self.get(path).await.1["revision"].clone();
        self.put(&format!("{path}/document?revision={revision}"), document)
            .await
    }

    /// Changes a page's name, dates and the like, starting from their newest revision.
    pub(crate) async fn change_page(&self, path: &str, change: &Value) -> (StatusCode, Value) {
        let mut change = change.clone();
        change["details_revision"] = self.get(path).await.1["details_revision"].clone();
        self.put(path, &change).await
    }

    /// The page of a name on the team's table.
    pub(crate) async fn page(&self, name: &str) -> Value {
        let pages = self.get("/api/pages").await.1;
        let card = pages
            .as_array()
            .unwrap()
            .iter()
            .find(|p| p["name"] == name)
            .unwrap();
        self.get(&format!("/api/pages/{}", id(card))).await.1
    }

    /// The page that most tests use: a tide line spread with six photos.
    pub(crate) async fn kites(&self) -> Value {
        self.page("Kites over the flats").await
    }
}

/// Serves the whole router on a free port: its address.
async fn serve(app: App) -> String {
    let listener = tokio::net::TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = format!("http://{}", listener.local_addr().unwrap());
    let service = router(app).into_make_service_with_connect_info::<SocketAddr>();
    tokio::spawn(async move { axum::serve(listener, service).await });
    address
}

/// A thing's id.
pub(crate) fn id(thing: &Value) -> String {
    thing["id"].as_str().unwrap().to_owned()
}

/// A change of a page's plan, made at a station.
pub(crate) fn change(page: &Value, station: &str, patch: Value, reason: &str) -> Value {
    json!({"revision": page["revision"], "station": station, "patch": patch, "reason": reason})
}

/// A change of a page's photo count.
pub(crate) fn photos(page: &Value, count: u32, reason: &str) -> Value {
    let patch = json!({"photos": {"photos": {"count": count}}});
    change(page, "fit", patch, reason)
}

/// What undo takes back (`undo`) or redo brings back (`redo`) next at a station, by its reason.
pub(crate) fn next_step(page: &Value, station: &str, way: &str) -> Value {
    let steps = page["trails"][station][way].as_array();
    steps
        .and_then(|steps| steps.last())
        .map_or(Value::Null, |step| step["reason"].clone())
}

pub(crate) async fn answer(request: RequestBuilder) -> (StatusCode, Value) {
    let response = request.send().await.unwrap();
    let status = response.status();
    let text = response.text().await.unwrap();
    (
        status,
        serde_json::from_str(&text).unwrap_or(Value::String(text)),
    )
}
