import React, { useCallback, useLayoutEffect, useReducer, useRef } from 'react';
import PropTypes from 'prop-types';
import classNames from 'classnames';
import Portal from './Portal';
import Fade from './Fade';
import {
  getOriginalBodyPadding,
  conditionallyUpdateScrollbar,
  setScrollbarWidth,
  mapToCssModules,
  omit,
  focusableElements,
  TransitionTimeouts,
  keyCodes,
  targetPropType,
  getTarget
} from './utils';

function noop() { }

const FadePropTypes = PropTypes.shape(Fade.propTypes);

const propTypes = {
  isOpen: PropTypes.bool,
  autoFocus: PropTypes.bool,
  centered: PropTypes.bool,
  scrollable: PropTypes.bool,
  size: PropTypes.string,
  toggle: PropTypes.func,
  keyboard: PropTypes.bool,
  role: PropTypes.string,
  labelledBy: PropTypes.string,
  backdrop: PropTypes.oneOfType([
    PropTypes.bool,
    PropTypes.oneOf(['static'])
  ]),
  onEnter: PropTypes.func,
  onExit: PropTypes.func,
  onOpened: PropTypes.func,
  onClosed: PropTypes.func,
  children: PropTypes.node,
  className: PropTypes.string,
  wrapClassName: PropTypes.string,
  modalClassName: PropTypes.string,
  backdropClassName: PropTypes.string,
  contentClassName: PropTypes.string,
  external: PropTypes.node,
  fade: PropTypes.bool,
  cssModule: PropTypes.object,
  zIndex: PropTypes.oneOfType([
    PropTypes.number,
    PropTypes.string,
  ]),
  backdropTransition: FadePropTypes,
  modalTransition: FadePropTypes,
  innerRef: PropTypes.oneOfType([
    PropTypes.object,
    PropTypes.string,
    PropTypes.func,
  ]),
  unmountOnClose: PropTypes.bool,
  returnFocusAfterClose: PropTypes.bool,
  container: targetPropType,
  trapFocus: PropTypes.bool
};

const propsToOmit = Object.keys(propTypes);

const defaultModalTransition = {
  timeout: TransitionTimeouts.Modal,
};

const defaultBackdropTransition = {
  mountOnEnter: true,
  timeout: TransitionTimeouts.Fade, // uses standard fade transition
};

function Modal({
  isOpen = false,
  autoFocus = true,
  centered = false,
  scrollable = false,
  role = 'dialog',
  backdrop = true,
  keyboard = true,
  zIndex = 1050,
  fade = true,
  onOpened: onOpenedProp = noop,
  onClosed: onClosedProp = noop,
  modalTransition = defaultModalTransition,
  backdropTransition = defaultBackdropTransition,
  unmountOnClose: unmountOnCloseProp = true,
  returnFocusAfterClose = true,
  container = 'body',
  trapFocus: trapFocusProp = false,
  ...others
}) {
  const props = {
    isOpen,
    autoFocus,
    centered,
    scrollable,
    role,
    backdrop,
    keyboard,
    zIndex,
    fade,
    onOpened: onOpenedProp,
    onClosed: onClosedProp,
    modalTransition,
    backdropTransition,
    unmountOnClose: unmountOnCloseProp,
    returnFocusAfterClose,
    container,
    trapFocus: trapFocusProp,
    ...others,
  };
  const [state, setState] = useReducer((state, change) => ({ ...state, ...change }), {
    isOpen: false,
    showStaticBackdropAnimation: false
  });
  const _element = useRef(null);
  const _originalBodyPadding = useRef(null);
  const _backdropAnimationTimeout = useRef();
  const _dialog = useRef();
  const _isMounted = useRef();
  const _mountContainer = useRef();
  const _mouseDownElement = useRef();
  const _triggeringElement = useRef();
  const modalIndex = useRef();
  const latestProps = useRef(props);
  latestProps.current = props;
  const latestState = useRef(state);
  latestState.current = state;

  useLayoutEffect(() => {
    return () => {
      clearBackdropAnimationTimeout();

      if (latestProps.current.onExit) {
        latestProps.current.onExit();
      }

      if (_element.current) {
        destroy();
        if (latestProps.current.isOpen || latestState.current.isOpen) {
          close();
        }
      }

      document.removeEventListener('focus', trapFocus, true);
      _isMounted.current = false;
    };
  }, []);

  useLayoutEffect(() => {
    const { isOpen, autoFocus, onEnter } = props;

    if (isOpen) {
      init();
      setState({ isOpen: true })
      if (autoFocus) {
        setFocus();
      }
    }

    if (onEnter) {
      onEnter();
    }

    // traps focus inside the Modal, even if the browser address bar is focused
    document.addEventListener('focus', trapFocus, true);

    _isMounted.current = true;
  }, []);

  const previousProps = useRef(null);
  const previousState = useRef(null);
  useLayoutEffect(() => {
    const prevProps = previousProps.current;
    previousProps.current = props;
    const prevState = previousState.current;
    previousState.current = state;
    if (prevProps === null) return;
    if (props.isOpen && !prevProps.isOpen) {
      init();
      setState({ isOpen: true});
      // let render() renders Modal Dialog first
      return;
    }

    // now Modal Dialog is rendered and we can refer this._element and this._dialog
    if (props.autoFocus && state.isOpen && !prevState.isOpen) {
      setFocus();
    }

    if (_element.current && prevProps.zIndex !== props.zIndex) {
      _element.current.style.zIndex = props.zIndex;
    }
  });

  const trapFocus = useCallback( (ev) => {
    if (!latestProps.current.trapFocus) {
      return;
    }

    if (!_element.current) //element is not attached
      return;

    if (_dialog.current && _dialog.current.parentNode === ev.target) // initial focus when the Modal is opened
      return;

    if (modalIndex.current < (Modal.openCount - 1)) // last opened modal
      return;

    const children = getFocusableChildren();

    for (let i = 0; i < children.length; i++) { // focus is already inside the Modal
      if (children[i] === ev.target)
        return;
    }

    if (children.length > 0) { // otherwise focus the first focusable element in the Modal
      ev.preventDefault();
      ev.stopPropagation();
      children[0].focus();
    }
  }, []);

  function onOpened(node, isAppearing) {
    props.onOpened();
    (props.modalTransition.onEntered || noop)(node, isAppearing);
  }

  function onClosed(node) {
    const { unmountOnClose } = props;
    // so all methods get called before it is unmounted
    props.onClosed();
    (props.modalTransition.onExited || noop)(node);

    if (unmountOnClose) {
      destroy();
    }
    close();

    if (_isMounted.current) {
      setState({ isOpen: false });
    }
  }

  function setFocus() {
    if (_dialog.current && _dialog.current.parentNode && typeof _dialog.current.parentNode.focus === 'function') {
      _dialog.current.parentNode.focus();
    }
  }

  function getFocusableChildren() {
    return _element.current.querySelectorAll(focusableElements.join(', '));
  }

  function getFocusedChild() {
    let currentFocus;
    const focusableChildren = getFocusableChildren();

    try {
      currentFocus = document.activeElement;
    } catch (err) {
      currentFocus = focusableChildren[0];
    }
    return currentFocus;
  }

  // not mouseUp because scrollbar fires it, shouldn't close when user scrolls
  const handleBackdropClick = useCallback((e) => {
    if (e.target === _mouseDownElement.current) {
      e.stopPropagation();

      const backdrop = _dialog.current ? _dialog.current.parentNode : null;

      if (backdrop && e.target === backdrop && latestProps.current.backdrop === 'static') {
        handleStaticBackdropAnimation();
      }

      if (!latestProps.current.isOpen || latestProps.current.backdrop !== true) return;

      if (backdrop && e.target === backdrop && latestProps.current.toggle) {
        latestProps.current.toggle(e);
      }
    }
  }, []);

  const handleTab = useCallback((e) => {
    if (e.which !== 9) return;
    if (modalIndex.current < (Modal.openCount - 1)) return; // last opened modal

    const focusableChildren = getFocusableChildren();
    const totalFocusable = focusableChildren.length;
    if (totalFocusable === 0) return;
    const currentFocus = getFocusedChild();

    let focusedIndex = 0;

    for (let i = 0; i < totalFocusable; i += 1) {
      if (focusableChildren[i] === currentFocus) {
        focusedIndex = i;
        break;
      }
    }

    if (e.shiftKey && focusedIndex === 0) {
      e.preventDefault();
      focusableChildren[totalFocusable - 1].focus();
    } else if (!e.shiftKey && focusedIndex === totalFocusable - 1) {
      e.preventDefault();
      focusableChildren[0].focus();
    }
  }, []);

  const handleBackdropMouseDown = useCallback((e) => {
    _mouseDownElement.current = e.target;
  }, []);

  const handleEscape = useCallback((e) => {
    if (latestProps.current.isOpen && e.keyCode === keyCodes.esc && latestProps.current.toggle) {
      if (latestProps.current.keyboard) {
        e.preventDefault();
        e.stopPropagation();

        latestProps.current.toggle(e);
      }
      else if (latestProps.current.backdrop === 'static') {
        e.preventDefault();
        e.stopPropagation();

        handleStaticBackdropAnimation();
      }
    }
  }, []);

  function handleStaticBackdropAnimation() {
    clearBackdropAnimationTimeout();
    setState({ showStaticBackdropAnimation: true });
    _backdropAnimationTimeout.current = setTimeout(() => {
      setState({ showStaticBackdropAnimation: false });
    }, 100);
  }

  function init() {
    try {
      _triggeringElement.current = document.activeElement;
    } catch (err) {
      _triggeringElement.current = null;
    }

    if (!_element.current) {
      _element.current = document.createElement('div');
      _element.current.setAttribute('tabindex', '-1');
      _element.current.style.position = 'relative';
      _element.current.style.zIndex = props.zIndex;
      _mountContainer.current = getTarget(props.container);
      _mountContainer.current.appendChild(_element.current);
    }

    _originalBodyPadding.current = getOriginalBodyPadding();
    conditionallyUpdateScrollbar();

    if (Modal.openCount === 0) {
      document.body.className = classNames(
        document.body.className,
        mapToCssModules('modal-open', props.cssModule)
      );
    }

    modalIndex.current = Modal.openCount;
    Modal.openCount += 1;
  }

  function destroy() {
    if (_element.current) {
      _mountContainer.current.removeChild(_element.current);
      _element.current = null;
    }

    manageFocusAfterClose();
  }

  function manageFocusAfterClose() {
    if (_triggeringElement.current) {
      const { returnFocusAfterClose } = latestProps.current;
      if (_triggeringElement.current.focus && returnFocusAfterClose) _triggeringElement.current.focus();
      _triggeringElement.current = null;
    }
  }

  function close() {
    if (Modal.openCount <= 1) {
      const modalOpenClassName = mapToCssModules('modal-open', latestProps.current.cssModule);
      // Use regex to prevent matching `modal-open` as part of a different class, e.g. `my-modal-opened`
      const modalOpenClassNameRegex = new RegExp(`(^| )${modalOpenClassName}( |$)`);
      document.body.className = document.body.className.replace(modalOpenClassNameRegex, ' ').trim();
    }
    manageFocusAfterClose();
    Modal.openCount = Math.max(0, Modal.openCount - 1);

    setScrollbarWidth(_originalBodyPadding.current);
  }

  function renderModalDialog() {
    const attributes = omit(props, propsToOmit);
    const dialogBaseClass = 'modal-dialog';

    return (
      <div
        {...attributes}
        className={mapToCssModules(classNames(dialogBaseClass, props.className, {
          [`modal-${props.size}`]: props.size,
          [`${dialogBaseClass}-centered`]: props.centered,
          [`${dialogBaseClass}-scrollable`]: props.scrollable,
        }), props.cssModule)}
        role="document"
        ref={(c) => {
          _dialog.current = c;
        }}
      >
        <div
          className={mapToCssModules(
            classNames('modal-content', props.contentClassName),
            props.cssModule
          )}
        >
          {props.children}
        </div>
      </div>
    );
  }

  function clearBackdropAnimationTimeout() {
    if (_backdropAnimationTimeout.current) {
      clearTimeout(_backdropAnimationTimeout.current);
      _backdropAnimationTimeout.current = undefined;
    }
  }

  const {
    unmountOnClose
  } = props;

  if (!!_element.current && (state.isOpen || !unmountOnClose)) {
    const isModalHidden = !!_element.current && !state.isOpen && !unmountOnClose;
    _element.current.style.display = isModalHidden ? 'none' : 'block';

    const {
      wrapClassName,
      modalClassName,
      backdropClassName,
      cssModule,
      isOpen,
      backdrop,
      role,
      labelledBy,
      external,
      innerRef,
    } = props;

    const modalAttributes = {
      onClick: handleBackdropClick,
      onMouseDown: handleBackdropMouseDown,
      onKeyUp: handleEscape,
      onKeyDown: handleTab,
      style: { display: 'block' },
      'aria-labelledby': labelledBy,
      role,
      tabIndex: '-1'
    };

    const hasTransition = props.fade;
    const modalTransition = {
      ...Fade.defaultProps,
      ...props.modalTransition,
      baseClass: hasTransition ? props.modalTransition.baseClass : '',
      timeout: hasTransition ? props.modalTransition.timeout : 0,
    };
    const backdropTransition = {
      ...Fade.defaultProps,
      ...props.backdropTransition,
      baseClass: hasTransition ? props.backdropTransition.baseClass : '',
      timeout: hasTransition ? props.backdropTransition.timeout : 0,
    };

    const Backdrop = backdrop && (
      hasTransition ?
        (<Fade
          {...backdropTransition}
          in={isOpen && !!backdrop}
          cssModule={cssModule}
          className={mapToCssModules(classNames('modal-backdrop', backdropClassName), cssModule)}
        />)
        : <div className={mapToCssModules(classNames('modal-backdrop', 'show', backdropClassName), cssModule)} />
    );

    return (
      <Portal node={_element.current}>
        <div className={mapToCssModules(wrapClassName)}>
          <Fade
            {...modalAttributes}
            {...modalTransition}
            in={isOpen}
            onEntered={onOpened}
            onExited={onClosed}
            cssModule={cssModule}
            className={mapToCssModules(classNames('modal', modalClassName, state.showStaticBackdropAnimation && 'modal-static'), cssModule)}
            innerRef={innerRef}
          >
            {external}
            {renderModalDialog()}
          </Fade>
          {Backdrop}
        </div>
      </Portal>
    );
  }
  return null;
}

Modal.propTypes = propTypes;
Modal.openCount = 0;

export default Modal;
