-- +goose Up
create table sites (
    id uuid primary key, name text not null, note text not null default '',
    lat double precision not null constraint sites_lat check (lat between -85 and 85), lon double precision not null constraint sites_lon check (lon between -180 and 180),
    elevation_m double precision not null constraint sites_elevation check (elevation_m between -500 and 6000),
    version int not null default 1, created_at timestamptz not null, created_by text not null
);
create unique index sites_name_once on sites (lower(name));

-- What is on the map. A removed feature stays, so that it can come back.
create table site_features (
    id uuid primary key, site_id uuid not null references sites, content jsonb not null, version int not null default 1,
    changed_at timestamptz not null, changed_by text not null, removed_at timestamptz
);
create index site_features_site on site_features (site_id) where removed_at is null;

create table site_terrain (
    site_id uuid primary key references sites, source text not null, lat double precision not null, lon double precision not null, cell_deg double precision not null,
    columns int not null, rows int not null, gaps int not null, sigma_m double precision not null, heights bytea not null, at timestamptz not null, by_name text not null
);

create table site_weather (
    id uuid primary key, site_id uuid not null references sites, at timestamptz not null, taken_at timestamptz not null, by_name text not null, content jsonb not null
);
create index site_weather_newest on site_weather (site_id, taken_at desc, id desc);

create trigger sites_tell after insert or update or delete on sites for each statement execute function tell_change();
create trigger site_features_tell after insert or update or delete on site_features for each statement execute function tell_change();
create trigger site_terrain_tell after insert or update or delete on site_terrain for each statement execute function tell_change();
create trigger site_weather_tell after insert or update or delete on site_weather for each statement execute function tell_change();

-- +goose Down
drop table site_weather;
drop table site_terrain;
drop table site_features;
drop table sites;
