import type { ReactNode } from "react";
import { Link, NavLink } from "react-router";
import styled from "styled-components";
import { mono } from "./theme";

const Bar = styled.header`
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 18px;
  min-height: 64px;
  padding: 6px clamp(12px, 2vw, 24px);
`;

const Brand = styled(Link)`
  ${mono}
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 48px;
  color: var(--ink);
  font-size: 1.25rem;
  font-weight: 700;
  text-decoration: none;
  i {
    width: 9px;
    height: 9px;
    border-radius: 5px;
    background: currentColor;
    &:first-of-type {
      width: 22px;
    }
  }
`;

const Nav = styled.nav`
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  a {
    white-space: nowrap;
    display: inline-flex;
    align-items: center;
    min-height: 48px;
    padding: 0 10px;
    color: var(--ink-soft);
    font-weight: 650;
    text-decoration: none;
    border-bottom: 3px solid transparent;
    &.active {
      color: var(--ink);
      border-bottom-color: var(--ink);
    }
    &:hover {
      color: var(--ink);
    }
  }
  /* Two rows at most on a phone. */
  @media (max-width: 719px) {
    margin-left: -7px;
    gap: 0;
    a {
      padding: 0 7px;
      font-size: 0.9rem;
    }
  }
`;

const Skip = styled.a`
  position: absolute;
  left: -999px;
  &:focus {
    left: 8px;
    top: 8px;
    z-index: 10;
    background: var(--sheet);
    padding: 12px;
  }
`;

export const Main = styled.main`
  padding: 4px clamp(12px, 2vw, 24px) 40px;
  max-width: 1280px;
  margin: 0 auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
`;

/** The top of every page: the name, whatever the page puts beside it, and the way to the other pages. */
export function TopBar({ children, nav = true }: { children?: ReactNode; nav?: boolean }) {
  return (
    <Bar>
      <Skip href="#work">To the work</Skip>
      <Brand to="/" aria-label="Klinko, to the garage">
        klinko
        <i />
        <i />
        <i />
      </Brand>
      {children}
      {nav && (
        <Nav aria-label="Pages">
          <NavLink to="/" end>
            Garage
          </NavLink>
          <NavLink to="/watch">Watch a lamp</NavLink>
          <NavLink to="/find">Find a way in</NavLink>
          <NavLink to="/codes">Find a code</NavLink>
          <NavLink to="/makes">Makes</NavLink>
          <NavLink to="/settings">Settings</NavLink>
        </Nav>
      )}
    </Bar>
  );
}

const Wait = styled.div`
  padding: 48px 24px;
  color: var(--ink-soft);
`;

/** Stands while data comes from the device. */
export function Opening({ what }: { what: string }) {
  return (
    <>
      <TopBar />
      <Wait role="status">Opening {what} …</Wait>
    </>
  );
}
