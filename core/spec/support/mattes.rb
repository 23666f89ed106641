# frozen_string_literal: true

# Mattes of small pictures.
module Mattes
  # @param parts [Array<Hash>] contributors without ids
  # @param rgb [Numo::SFloat, nil] [3, n] log codes
  # @return [Numo::SFloat] [height, width]
  def matte(*parts, width: 120, height: 60, rgb: nil, refinements: [], window: nil, strength: 1.0)
    document = {"contributors" => parts.each_with_index.map { |part, index| {"id" => index.to_s, **part} },
                "refinements" => refinements.each_with_index.map { |one, index| {"id" => index.to_s, **one} }, "strength" => strength}
    weights(Mordant::Matte::Composite.new(document), width, height, rgb || Numo::SFloat.zeros(3, width * height), window)
  end

  def weights(composite, width, height, rgb, window = nil)
    space = Mordant::Colour::WorkingSpace.default
    picture = Mordant::Frame.new(rgb, width:, height:, encoding: space.log)
    moment = Mordant::Grade::Moment.of(picture)
    plan = Mordant::Grade::Plan.new(recipe: Mordant::Grade::Recipe.new({"steps" => []}), source: space.log)
    moment = moment.from(Mordant::Grade::Origin.new(plan, moment))
    moment = moment.at(window) if window
    sight = Mordant::Matte::Sight.new(moment, space) { |other| plan.picture(other).rgb }
    composite.weights(sight).reshape(moment.window.height, moment.window.width)
  end

  # @param colours [Array<Array<Float>>] log codes
  # @return [Numo::SFloat] [3, n]
  def patches(*colours) = Numo::SFloat.cast(colours.transpose)

  def part(kind, mode: "add", **values)
    own = %i[softness invert strength name keys]
    {"kind" => kind, "mode" => mode, **values.slice(*own).transform_keys(&:to_s), "parameters" => values.except(*own).transform_keys(&:to_s)}
  end

  # A closed curve through four points, near enough a circle (Riskus 2006: 0.5523 of the radius).
  def circle(radius, feather: [0.0, 0.0], x: 0.0, y: 0.0)
    arm = 0.5523 * radius
    points = [[radius, 0, 0, -arm], [0, radius, arm, 0], [-radius, 0, 0, arm], [0, -radius, -arm, 0]].map { |px, py, hx, hy| [px + x, py + y, hx, hy, -hx, -hy, *feather] }
    {"kind" => "outline", "mode" => "add", "parameters" => {"points" => points}}
  end

  def polygon(*points) = {"kind" => "outline", "mode" => "add", "parameters" => {"points" => points.map { |x, y| [x, y, 0, 0, 0, 0, 0, 0] }}}
end
