-- Once, on the primary, as its superuser: psql -f roles.sql. Change the three passwords, here and in lavacrum.env and standby.sh.
\set ON_ERROR_STOP on
-- who owns the tables: changes them, and sees past row policies, so that a backup is whole
create role lavacrum_owner login createrole bypassrls password 'change-me-owner';
-- who asks for people: owns nothing, sees a workshop at a time
create role lavacrum_server login noinherit password 'change-me-server';
create role lavacrum_app nologin noinherit;
-- who visits an owner's page: sees one machine, column by column
create role lavacrum_door nologin noinherit;
grant lavacrum_app, lavacrum_door to lavacrum_server;
grant lavacrum_app, lavacrum_door, lavacrum_server to lavacrum_owner with admin option;
-- who copies everything to the standby
create role lavacrum_standby login replication password 'change-me-standby';
select pg_create_physical_replication_slot('standby');
create database lavacrum owner lavacrum_owner;
\connect lavacrum
create extension if not exists pg_trgm;
create extension if not exists btree_gin;
create extension if not exists unaccent;
