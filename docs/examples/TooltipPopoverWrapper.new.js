import React, { useCallback, useLayoutEffect, useReducer, useRef } from 'react';
import PropTypes from 'prop-types';
import PopperContent from './PopperContent';
import {
  getTarget,
  targetPropType,
  omit,
  PopperPlacements,
  mapToCssModules,
  DOMElement
} from './utils';

export const propTypes = {
  children: PropTypes.oneOfType([PropTypes.node, PropTypes.func]),
  placement: PropTypes.oneOf(PopperPlacements),
  target: targetPropType.isRequired,
  container: targetPropType,
  isOpen: PropTypes.bool,
  disabled: PropTypes.bool,
  hideArrow: PropTypes.bool,
  boundariesElement: PropTypes.oneOfType([PropTypes.string, DOMElement]),
  className: PropTypes.string,
  innerClassName: PropTypes.string,
  arrowClassName: PropTypes.string,
  popperClassName: PropTypes.string,
  cssModule: PropTypes.object,
  toggle: PropTypes.func,
  autohide: PropTypes.bool,
  placementPrefix: PropTypes.string,
  delay: PropTypes.oneOfType([
    PropTypes.shape({ show: PropTypes.number, hide: PropTypes.number }),
    PropTypes.number
  ]),
  modifiers: PropTypes.object,
  positionFixed: PropTypes.bool,
  offset: PropTypes.oneOfType([PropTypes.string, PropTypes.number]),
  innerRef: PropTypes.oneOfType([
    PropTypes.func,
    PropTypes.string,
    PropTypes.object
  ]),
  trigger: PropTypes.string,
  fade: PropTypes.bool,
  flip: PropTypes.bool,
};

const DEFAULT_DELAYS = {
  show: 0,
  hide: 50
};

function isInDOMSubtree(element, subtreeRoot) {
  return subtreeRoot && (element === subtreeRoot || subtreeRoot.contains(element));
}

function isInDOMSubtrees(element, subtreeRoots = []) {
  return subtreeRoots && subtreeRoots.length && subtreeRoots.filter(subTreeRoot=> isInDOMSubtree(element, subTreeRoot))[0];
}

function TooltipPopoverWrapper({
  isOpen: isOpenProp = false,
  hideArrow: hideArrowProp = false,
  autohide = false,
  delay = DEFAULT_DELAYS,
  toggle: toggleProp = function () {},
  trigger = 'click',
  fade: fadeProp = true,
  ...others
}) {
  const inputs = {
    isOpen: isOpenProp,
    hideArrow: hideArrowProp,
    autohide,
    delay,
    toggle: toggleProp,
    trigger,
    fade: fadeProp,
    ...others,
  };
  const [ownState, setState] = useReducer(
    (ownState, change) => ({ ...ownState, ...change }),
    { isOpen: inputs.isOpen }
  );
  const _targets = useRef([]);
  const currentTargetElement = useRef(null);
  const _isMounted = useRef(false);
  const _hideTimeout = useRef();
  const _popover = useRef();
  const _showTimeout = useRef();
  const latestProps = useRef(inputs);
  latestProps.current = inputs;

  useLayoutEffect(() => {
    _isMounted.current = true;
    updateTarget();
    return () => {
      _isMounted.current = false;
      removeTargetEvents();
      _targets.current = null;
      clearShowTimeout();
      clearHideTimeout();
    };
  }, []);

  function onMouseOverTooltipContent() {
    if (inputs.trigger.indexOf('hover') > -1 && !inputs.autohide) {
      if (_hideTimeout.current) {
        clearHideTimeout();
      }
      if (ownState.isOpen && !inputs.isOpen) {
        toggle();
      }
    }
  }

  function onMouseLeaveTooltipContent(e) {
    if (inputs.trigger.indexOf('hover') > -1 && !inputs.autohide) {
      if (_showTimeout.current) {
        clearShowTimeout();
      }
      e.persist();
      _hideTimeout.current = setTimeout(
        hide.bind(null, e),
        getDelay('hide')
      );
    }
  }

  const onEscKeyDown = useCallback((e) => {
    if (e.key === 'Escape') {
      hide(e);
    }
  }, []);

  const getRef = useCallback((ref) => {
    const { innerRef } = latestProps.current;
    if (innerRef) {
      if (typeof innerRef === 'function') {
        innerRef(ref);
      } else if (typeof innerRef === 'object') {
        innerRef.current = ref;
      }
    }
    _popover.current = ref;
  }, []);

  function getDelay(key) {
    const { delay } = latestProps.current;
    if (typeof delay === 'object') {
      return isNaN(delay[key]) ? DEFAULT_DELAYS[key] : delay[key];
    }
    return delay;
  }

  function getCurrentTarget(target) {
    if (!target)
      return null;
    const index = _targets.current.indexOf(target);
    if (index >= 0)
      return _targets.current[index];
    return getCurrentTarget(target.parentElement);
  }

  const show = useCallback((e) => {
    if (!latestProps.current.isOpen) {
      clearShowTimeout();
      currentTargetElement.current = e ? e.currentTarget || getCurrentTarget(e.target) : null;
      if (e && e.composedPath && typeof e.composedPath === 'function') {
        const path = e.composedPath();
        currentTargetElement.current = (path && path[0]) || currentTargetElement.current;
      }
      toggle(e);
    }
  }, []);

  const showWithDelay = useCallback((e) => {
    if (_hideTimeout.current) {
      clearHideTimeout();
    }
    _showTimeout.current = setTimeout(
      show.bind(null, e),
      getDelay('show')
    );
  }, []);

  const hide = useCallback((e) => {
    if (latestProps.current.isOpen) {
      clearHideTimeout();
      currentTargetElement.current = null;
      toggle(e);
    }
  }, []);

  const hideWithDelay = useCallback((e) => {
    if (_showTimeout.current) {
      clearShowTimeout();
    }
    _hideTimeout.current = setTimeout(
      hide.bind(null, e),
      getDelay('hide')
    );
  }, []);

  function clearShowTimeout() {
    clearTimeout(_showTimeout.current);
    _showTimeout.current = undefined;
  }

  function clearHideTimeout() {
    clearTimeout(_hideTimeout.current);
    _hideTimeout.current = undefined;
  }

  const handleDocumentClick = useCallback((e) => {
    const triggers = latestProps.current.trigger.split(' ');

    if (triggers.indexOf('legacy') > -1 && (latestProps.current.isOpen || isInDOMSubtrees(e.target, _targets.current))) {
      if (_hideTimeout.current) {
        clearHideTimeout();
      }
      if (latestProps.current.isOpen && !isInDOMSubtree(e.target, _popover.current)) {
        hideWithDelay(e);
      } else if (!latestProps.current.isOpen) {
        showWithDelay(e);
      }
    } else if (triggers.indexOf('click') > -1 && isInDOMSubtrees(e.target, _targets.current)) {
      if (_hideTimeout.current) {
        clearHideTimeout();
      }

      if (!latestProps.current.isOpen) {
        showWithDelay(e);
      } else {
        hideWithDelay(e);
      }
    }
  }, []);

  function addEventOnTargets(type, handler, isBubble) {
    _targets.current.forEach(target=> {
      target.addEventListener(type, handler, isBubble);
    });
  }

  function removeEventOnTargets(type, handler, isBubble) {
    _targets.current.forEach(target=> {
      target.removeEventListener(type, handler, isBubble);
    });
  }

  function addTargetEvents() {
    if (inputs.trigger) {
      let triggers = inputs.trigger.split(' ');
      if (triggers.indexOf('manual') === -1) {
        if (triggers.indexOf('click') > -1 || triggers.indexOf('legacy') > -1) {
          document.addEventListener('click', handleDocumentClick, true);
        }

        if (_targets.current && _targets.current.length) {
          if (triggers.indexOf('hover') > -1) {
            addEventOnTargets(
              'mouseover',
              showWithDelay,
              true
            );
            addEventOnTargets(
              'mouseout',
              hideWithDelay,
              true
            );
          }
          if (triggers.indexOf('focus') > -1) {
            addEventOnTargets('focusin', show, true);
            addEventOnTargets('focusout', hide, true);
          }
          addEventOnTargets('keydown', onEscKeyDown, true);
        }
      }
    }
  }

  function removeTargetEvents() {
    if (_targets.current) {
      removeEventOnTargets(
        'mouseover',
        showWithDelay,
        true
      );
      removeEventOnTargets(
        'mouseout',
        hideWithDelay,
        true
      );
      removeEventOnTargets('keydown', onEscKeyDown, true);
      removeEventOnTargets('focusin', show, true);
      removeEventOnTargets('focusout', hide, true);
    }

    document.removeEventListener('click', handleDocumentClick, true)
  }

  function updateTarget() {
    const newTarget = getTarget(inputs.target, true);
    if (newTarget !== _targets.current) {
      removeTargetEvents();
      _targets.current = newTarget ? Array.from(newTarget) : [];
      currentTargetElement.current = currentTargetElement.current || _targets.current[0];
      addTargetEvents();
    }
  }

  function toggle(e) {
    if (latestProps.current.disabled || !_isMounted.current) {
      return e && e.preventDefault();
    }

    return latestProps.current.toggle(e);
  }

  if (inputs.isOpen && !ownState.isOpen) {
    setState({ isOpen: inputs.isOpen });
    return null;
  }

  if (inputs.isOpen) {
    updateTarget();
  }

  const target = currentTargetElement.current || _targets.current[0];
  if (!target) {
    return null;
  }

  const {
    className,
    cssModule,
    innerClassName,
    isOpen,
    hideArrow,
    boundariesElement,
    placement,
    placementPrefix,
    arrowClassName,
    popperClassName,
    container,
    modifiers,
    positionFixed,
    offset,
    fade,
    flip,
    children
  } = inputs;

  const attributes = omit(inputs, Object.keys(propTypes));

  const popperClasses = mapToCssModules(popperClassName, cssModule);

  const classes = mapToCssModules(innerClassName, cssModule);

  return (
    <PopperContent
      className={className}
      target={target}
      isOpen={isOpen}
      hideArrow={hideArrow}
      boundariesElement={boundariesElement}
      placement={placement}
      placementPrefix={placementPrefix}
      arrowClassName={arrowClassName}
      popperClassName={popperClasses}
      container={container}
      modifiers={modifiers}
      positionFixed={positionFixed}
      offset={offset}
      cssModule={cssModule}
      fade={fade}
      flip={flip}
    >
      {({ scheduleUpdate }) => (
        <div
          {...attributes}
          ref={getRef}
          className={classes}
          role="tooltip"
          onMouseOver={onMouseOverTooltipContent}
          onMouseLeave={onMouseLeaveTooltipContent}
          onKeyDown={onEscKeyDown}
        >
          {typeof children === 'function' ? children({ scheduleUpdate }) : children}
        </div>
      )}

    </PopperContent>
  );
}

TooltipPopoverWrapper.propTypes = propTypes;

export default TooltipPopoverWrapper;
