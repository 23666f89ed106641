# frozen_string_literal: true

module Server
  # A shot's grade as a monitor on set wants it, in one act: .cube files of 17, 33 and 65 nodes, and what they hold
  # and leave out, in words.
  class OnSet
    SIZES = Mordant::Grade::Bake::SIZES
    CODES = 1023

    # @param shot [Shot]
    # @param recipe [Mordant::Grade::Recipe] as it stands
    # @param taken [String, nil] of a grade that moves, where it is taken
    # @param view [Mordant::Grade::View] that the tables return
    # @param colours [Numo::DFloat, nil] [3, n] codes of the shot
    def initialize(shot, recipe, taken:, view:, colours:)
      @shot, @recipe, @taken, @view, @colours = shot, recipe, taken, view, colours
    end

    # @return [String] of the folder in it, and of the file
    def name = [@shot.cut.project.name, @shot.name, "on_set"].join("_").gsub(/[^\p{L}\p{N}._-]+/, "_")

    # @yieldparam path [String]
    # @yieldparam text [String]
    def each_file
      bakes.each { |bake| yield "#{name}/#{name}_#{bake.size}.cube", Mordant::Lut::Cube.write(bake.table(title: "#{title}, #{bake.size} nodes")) }
      yield "#{name}/read_me.txt", "#{words.join("\n")}\n"
    end

    private

    def project = @shot.cut.project

    def bakes
      @bakes ||= SIZES.map { |size| Mordant::Grade::Bake.new(plan: project.plan(@recipe.within_luts, @shot.clip.source_encoding), output: project.output(@view), size:) }
    end

    def title = "#{project.name} #{@shot.name}: #{@shot.clip.encoding} to #{@view}#{", #{@taken}" if @taken}"

    def words
      held, left = @recipe.within_luts.entries.select(&:acts?).map(&:name), @recipe.beyond_luts.map(&:name)
      [title, "", "Holds: #{held.empty? ? "no steps, the view alone" : held.join(", ")}.",
        left.empty? ? "Leaves nothing out." : "Leaves out, as no table can hold it: #{left.join(", ")}.", "",
        "How far from exact, in codes of 10 bits:", *bakes.map { |bake| "  #{bake.size} nodes: #{[["on the colours of the shot", bake.error(@colours)], ["on all there are", bake.error]].drop(@colours ? 0 : 1).map { |where, error| "#{where} #{told(error)}" }.join("; ")}" },
        "", "The tables take the camera's codes, #{Mordant::Colour.encoding(@shot.clip.encoding).label}, and return #{@view}."]
    end

    def told(error) = format("mean %.2f, worst %.1f", error.mean * CODES, error.worst * CODES)
  end
end
